#include "core/io/shelf.h"

#include <algorithm>
#include <functional>

#include "core/error.h"
#include "core/io/arrange.h"
#include "core/io/common/guarded_xml.h"
#include "core/io/common/read_bytes.h"
#include "core/io/read_drawing.h"
#include "core/io/svg/write_svg.h"

namespace rim::io {
namespace {

namespace fs = std::filesystem;

constexpr std::uintmax_t kLargestFile = 50'000'000;

bool isCalled(const xmlNode* node, std::string_view name) {
  return node->type == XML_ELEMENT_NODE && reinterpret_cast<const char*>(node->name) == name;
}

std::string textOf(const xmlNode* node) {
  const std::unique_ptr<xmlChar, decltype(xmlFree)> text(xmlNodeGetContent(node), xmlFree);
  if (!text) return {};
  const std::string all = reinterpret_cast<const char*>(text.get());
  const auto first = all.find_first_not_of(" \t\r\n");
  if (first == std::string::npos) return {};
  return all.substr(first, all.find_last_not_of(" \t\r\n") - first + 1);
}

/// Calls for every element of this name at any depth. The reader has bounded how deep that is.
void forEach(const xmlNode* in, std::string_view name, const std::function<void(const xmlNode*)>& does) {
  for (const xmlNode* node = in->children; node != nullptr; node = node->next) {
    if (isCalled(node, name)) does(node);
    if (node->type == XML_ELEMENT_NODE) forEach(node, name, does);
  }
}

/// A file's name for a piece: what no folder takes is left out.
std::string fileNameFor(const std::string& name) {
  std::string out;
  for (const char c : name) {
    const bool bad =
        static_cast<unsigned char>(c) < ' ' || std::string_view("/\\:*?\"<>|").find(c) != std::string::npos;
    out += bad ? '_' : c;
  }
  constexpr std::size_t kLongest = 120;
  out = out.substr(0, kLongest);
  // A name cut in the middle of a letter is none.
  while (!out.empty() && name.size() > out.size() && (static_cast<unsigned char>(name[out.size()]) & 0xC0) == 0x80)
    out.pop_back();
  if (!out.empty() && out.front() != '.') return out;
  std::string named("piece ");
  named += out;
  return named;
}

}  // namespace

fs::path putOnShelf(const Drawing& drawing, const ShelfLabel& label, const fs::path& folder) {
  if (drawing.outlines.empty()) throw InputError("there are no outlines to put on the shelf.");
  if (label.name.find_first_not_of(" \t\r\n") == std::string::npos) throw InputError("it needs a name on the shelf.");
  std::error_code failed;
  fs::create_directories(folder, failed);
  if (failed) throw WriteError("the folder of the shelf cannot be made: " + failed.message() + ".");
  const std::string stem = fileNameFor(label.name);
  fs::path file = folder / (stem + ".svg");
  for (int k = 2; fs::exists(file); ++k) file = folder / (stem + " " + std::to_string(k) + ".svg");
  svg::writeSvg(onArtworkPage(drawing, 0), file, svg::SvgAbout{label.name, label.source, label.tags});
  return file;
}

ShelfLabel shelfLabelIn(const std::string& svg) {
  ShelfLabel label;
  try {
    const XmlDocument document = readXml(svg);
    const xmlNode* root = xmlDocGetRootElement(document.get());
    if (root == nullptr) return label;
    for (const xmlNode* node = root->children; node != nullptr; node = node->next) {
      if (isCalled(node, "title")) label.name = textOf(node);
      if (isCalled(node, "desc")) label.source = textOf(node);
      if (!isCalled(node, "metadata")) continue;
      forEach(node, "subject", [&label](const xmlNode* subject) {
        forEach(subject, "li", [&label](const xmlNode* tag) {
          if (std::string text = textOf(tag); !text.empty()) label.tags.push_back(std::move(text));
        });
      });
    }
  } catch (const InputError&) {
    return {};
  }
  return label;
}

std::vector<ShelfPiece> piecesOn(const fs::path& folder, const std::stop_token& stop) {
  std::vector<ShelfPiece> pieces;
  std::error_code missing;
  for (const fs::directory_entry& entry : fs::directory_iterator(folder, missing)) {
    if (stop.stop_requested()) throw Cancelled();
    std::error_code unknown;
    if (entry.path().extension() != ".svg" || !entry.is_regular_file(unknown)) continue;
    try {
      const std::string bytes = bytesOf(entry.path(), kLargestFile, "drawing");
      ShelfPiece piece{entry.path(), shelfLabelIn(bytes), readDrawing(bytes, entry.path().filename().string()).drawing};
      if (piece.drawing.outlines.empty()) continue;
      if (piece.label.name.empty()) piece.label.name = entry.path().stem().string();
      pieces.push_back(std::move(piece));
    } catch (const InputError&) {
      continue;  // no drawing
    }
  }
  std::sort(pieces.begin(), pieces.end(), [](const ShelfPiece& a, const ShelfPiece& b) {
    return std::pair(a.label.name, a.file) < std::pair(b.label.name, b.file);
  });
  return pieces;
}

}  // namespace rim::io
