#include "core/io/read_drawing.h"

#include <array>
#include <cstdio>
#include <fstream>

#include "core/error.h"
#include "core/io/common/line_fault.h"
#include "core/io/common/read_bytes.h"
#include "core/io/dxf/read_dxf.h"
#include "core/io/export.h"
#include "core/io/svg/read_svg.h"

namespace rim::io {
ReadResult readDrawing(const std::filesystem::path& file, const ReadOptions& options) {
  drawingKindOf(file);  // before a file is read that is none
  return readDrawing(bytesOf(file, kLargestDrawingFile, "drawing"), file, options);
}

ReadResult readDrawing(std::string_view bytes, const std::filesystem::path& name, const ReadOptions& options) {
  const FileKind kind = drawingKindOf(name);
  if (bytes.empty()) throw InputError("the file is empty.");
  ReadResult read = kind == FileKind::Svg ? svg::readSvg(bytes, options) : dxf::readDxf(bytes, options);
  mend::PutTogether whole = mend::putTogether(read.drawing);
  read.drawing = std::move(whole.drawing);
  read.joined = std::move(whole.joined);
  if (read.joined.empty()) return read;
  std::size_t pieces = 0;
  for (const mend::JoinedOutline& outline : read.joined) pieces += outline.pieces;
  const bool one = read.joined.size() == 1;
  read.notes.push_back((one ? "1 outline was" : countOf(read.joined.size(), "outlines") + " were") + " in " +
                       (pieces == 1 ? "1 piece" : countOf(pieces, "pieces")) + " whose ends meet; " +
                       (one ? "it is" : "they are") + " put together.");
  return read;
}

std::vector<mend::Finding> unjoined(const ReadResult& read) {
  std::vector<mend::Finding> findings;
  for (const mend::JoinedOutline& outline : read.joined) {
    findings.push_back({mend::FindingKind::Unjoined,
                        outline.at,
                        outline.outline,
                        outline.outline,
                        0,
                        outline.pieces == 1 ? "The ends of this outline meet, but are not joined."
                                            : "This outline is there in " + std::to_string(outline.pieces) +
                                                  " pieces whose ends meet, but are not joined.",
                        {},
                        "join"});
  }
  return findings;
}

std::string unitChoices(const ReadResult& read) {
  const Box box = boxOf(read.drawing);
  struct Choice {
    const char* name;
    double mm;
  };
  constexpr std::array kChoices{Choice{"mm", 1}, Choice{"cm", 10}, Choice{"inches", kMmPerInch},
                                Choice{"px", kMmPerCssPx}};
  std::string text;
  for (const Choice& choice : kChoices) {
    std::array<char, 96> part{};
    const double k = choice.mm / read.mmPerUnit;
    std::snprintf(part.data(), part.size(), "%s in %s %.1f x %.1f mm", text.empty() ? "" : ",", choice.name,
                  box.width() * k, box.height() * k);
    text += part.data();
  }
  return "The file names no unit. Its drawing would be" + text + ".";
}

}  // namespace rim::io
