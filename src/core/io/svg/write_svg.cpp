#include "core/io/svg/write_svg.h"

#include <libxml/xmlwriter.h>

#include <array>
#include <cctype>
#include <charconv>
#include <cmath>
#include <cstdint>
#include <memory>
#include <numeric>
#include <optional>
#include <set>
#include <string>

#include "core/colour/inks.h"
#include "core/drawing/nested.h"
#include "core/error.h"
#include "core/geometry/arc.h"
#include "core/io/common/guarded_xml.h"
#include "core/io/common/safe_file.h"

namespace rim::io::svg {
namespace {

/// Fixed notation without needless zeros, the same in every language.
void append(std::string& text, double value) {
  constexpr double kLargest = 1e9;  // what is left of 64 bits beside the decimals
  constexpr std::int64_t kOne = 1'000'000;
  std::array<char, 64> digits{};
  const auto write = [&](auto... number) {
    return std::to_chars(digits.data(), digits.data() + digits.size(), number...).ptr;
  };
  if (!(std::abs(value) < kLargest)) {
    text.append(digits.data(), write(value, std::chars_format::fixed, 0));
    return;
  }
  // Whole millionths: their digits are found several times as fast as those of a fraction.
  const auto millionths = static_cast<std::int64_t>(value * kOne + std::copysign(0.5, value));
  if (millionths < 0) text += '-';
  text.append(digits.data(), write(std::abs(millionths) / kOne));
  const std::int64_t rest = std::abs(millionths) % kOne;
  if (rest == 0) return;
  char* end = write(kOne + rest);
  while (end[-1] == '0') --end;
  digits[0] = '.';  // in place of the one that kept the zeros before the rest
  text.append(digits.data(), end);
}

std::string number(double value) {
  std::string text;
  append(text, value);
  return text;
}

class PathData {
  static constexpr double kNearlyHalfTurn = 0.8;  // bulge; 155 degrees

 public:
  explicit PathData(double pageHeight) : pageHeight_(pageHeight) {}

  void add(const Path& path) {
    text_ += text_.empty() ? "M" : " M";
    place(path.start);
    Point from = path.start;
    for (std::size_t i = 0; i < path.segments.size(); ++i) {
      const Segment& s = path.segments[i];
      const bool last = i + 1 == path.segments.size();
      // Z draws the closing line itself.
      if (!(path.closed && last && s.kind == SegmentKind::Line)) segment(from, s);
      from = s.end;
    }
    if (path.closed) text_ += " Z";
  }
  const std::string& text() const { return text_; }

 private:
  void place(Point p) {
    append(text_, p.x);
    text_ += ',';
    append(text_, pageHeight_ - p.y);
  }

  void segment(Point from, const Segment& s) {
    if (s.kind == SegmentKind::Line) {
      text_ += " L";
    } else if (s.kind == SegmentKind::Cubic) {
      text_ += " C";
      place(s.handle1);
      text_ += " ";
      place(s.handle2);
      text_ += " ";
    } else {
      arc(from, s);
      return;
    }
    place(s.end);
  }

  /// Near a half turn the centre hangs on the last digit of the radius: such arcs are halved.
  void arc(Point from, const Segment& s) {
    const Arc whole = arcFromBulge(from, s.end, s.bulge);
    if (std::abs(s.bulge) > kNearlyHalfTurn) {
      const Point middle = pointOn(whole, 0.5);
      const double half = bulgeFromSweep(whole.sweep / 2);
      arc(from, Segment::arc(middle, half));
      arc(middle, Segment::arc(s.end, half));
      return;
    }
    const std::string radius = number(whole.radius);
    // Counter-clockwise with y up is the direction that SVG's sweep flag calls 0.
    text_ += " A" + radius + "," + radius + " 0 0," + (s.bulge > 0 ? "0" : "1") + " ";
    place(s.end);
  }

  double pageHeight_;
  std::string text_;
};

void attribute(xmlTextWriter* writer, const char* name, const std::string& value) {
  if (xmlTextWriterWriteAttribute(writer, xml(name), xml(value.c_str())) < 0) {
    throw WriteError("the drawing could not be written: the disk may be full.");
  }
}

/// How one path element looks.
struct ElementLook {
  bool isLine = false;  ///< stroked, else filled
  double penWidth = 0;  ///< of lines as wide as they were drawn; 0: hairlines

  friend bool operator==(const ElementLook&, const ElementLook&) = default;
};

void writeElement(xmlTextWriter* writer, const PathData& data, const std::string& colour, const ElementLook& look) {
  if (data.text().empty()) return;
  xmlTextWriterStartElement(writer, xml("path"));
  attribute(writer, "fill", look.isLine ? "none" : colour);
  if (!look.isLine) attribute(writer, "fill-rule", "evenodd");
  attribute(writer, "stroke", look.isLine ? colour : "none");
  if (look.isLine) attribute(writer, "stroke-width", look.penWidth > 0 ? number(look.penWidth) : "0.1");
  if (look.penWidth > 0) {
    attribute(writer, "stroke-linecap", "round");
    attribute(writer, "stroke-linejoin", "round");
  }
  attribute(writer, "d", data.text());
  xmlTextWriterEndElement(writer);
}

/// Outlines by their places, as far as they may share an element.
using Groups = std::vector<std::vector<std::size_t>>;

Groups groupsOf(const Drawing& drawing, job::SvgElement element) {
  const std::size_t count = drawing.outlines.size();
  std::vector<std::size_t> all(count);
  std::iota(all.begin(), all.end(), std::size_t{0});
  if (element == job::SvgElement::Layer) return {all};
  Groups groups;
  if (element == job::SvgElement::Outline) {
    for (const std::size_t i : all) groups.push_back({i});
    return groups;
  }
  groups = areasOf(drawing);
  std::vector<bool> grouped(count);
  for (const auto& group : groups) {
    for (const std::size_t i : group) grouped[i] = true;
  }
  for (const std::size_t i : all) {
    if (!grouped[i]) groups.push_back({i});
  }
  return groups;
}

/// All paths, or those of one layer: filled when they are closed, as thin lines when some are open. Outlines of a group
/// that follow each other and look alike share an element; lines of a pen are never filled.
void writePaths(xmlTextWriter* writer, const Drawing& drawing, const Groups& groups, std::optional<std::size_t> layer,
                const std::string& colour, const SvgLook& wished) {
  const auto isHere = [&](const Outline& outline) { return !layer || outline.layer == *layer; };
  const bool closed = std::all_of(drawing.outlines.begin(), drawing.outlines.end(), [&](const Outline& outline) {
    return !isHere(outline) || outline.stroke.usual > 0 || outline.path().closed;
  });
  const bool filled = closed && wished.filled.value_or(true);
  for (const auto& group : groups) {
    PathData data(drawing.pageHeight);
    ElementLook look;
    for (const std::size_t i : group) {
      const Outline& outline = drawing.outlines[i];
      if (!isHere(outline)) continue;
      const bool isPen = outline.stroke.usual > 0;
      const ElementLook own{isPen || !filled, isPen && wished.strokesAsDrawn ? outline.stroke.usual : 0};
      if (own != look) {
        writeElement(writer, data, colour, look);
        data = PathData(drawing.pageHeight);
        look = own;
      }
      data.add(outline.path());
    }
    writeElement(writer, data, colour, look);
  }
}

/// What XML allows in an id (letters, digits, - and _), begun with a letter, and no other layer has.
std::string idOf(const Layer& layer, std::set<std::string>& used) {
  std::string id = "ink-";
  for (const char c : layer.name) {
    const auto letter = static_cast<unsigned char>(c);
    if (std::isalnum(letter) != 0 && letter < 128) id += c;
    if (c == ' ' || c == '-' || c == '_') id += '-';
  }
  std::string own = id;
  for (int k = 2; !used.insert(own).second; ++k) own = id + "-" + std::to_string(k);
  return own;
}

/// One group a layer, with an id and a title.
void writeLayers(xmlTextWriter* writer, const Drawing& drawing, const SvgLook& look) {
  std::set<std::string> used;
  const Groups groups = groupsOf(drawing, look.element);
  for (std::size_t layer = 0; layer < drawing.layers.size(); ++layer) {
    xmlTextWriterStartElement(writer, xml("g"));
    attribute(writer, "id", idOf(drawing.layers[layer], used));
    xmlTextWriterWriteElement(writer, xml("title"), xml(drawing.layers[layer].name.c_str()));
    const Layer& own = drawing.layers[layer];
    writePaths(writer, drawing, groups, layer, colour::hexOf({own.red, own.green, own.blue}), look);
    xmlTextWriterEndElement(writer);
  }
}

void writeTags(xmlTextWriter* writer, const std::vector<std::string>& tags) {
  const auto begin = [writer](const char* name) { xmlTextWriterStartElement(writer, xml(name)); };
  begin("metadata");
  begin("rdf:RDF");
  attribute(writer, "xmlns:rdf", "http://www.w3.org/1999/02/22-rdf-syntax-ns#");
  attribute(writer, "xmlns:dc", "http://purl.org/dc/elements/1.1/");
  begin("rdf:Description");
  attribute(writer, "rdf:about", "");
  begin("dc:subject");
  begin("rdf:Bag");
  for (const std::string& tag : tags) xmlTextWriterWriteElement(writer, xml("rdf:li"), xml(tag.c_str()));
  constexpr int kBegun = 5;
  for (int k = 0; k < kBegun; ++k) xmlTextWriterEndElement(writer);
}

void writeDocument(xmlTextWriter* writer, const Drawing& drawing, const SvgAbout& about, const SvgLook& look) {
  xmlTextWriterSetIndent(writer, 1);
  xmlTextWriterStartDocument(writer, "1.0", "UTF-8", nullptr);
  xmlTextWriterStartElement(writer, xml("svg"));
  attribute(writer, "xmlns", "http://www.w3.org/2000/svg");
  attribute(writer, "version", "1.1");
  const std::string unit = drawing.frame == Frame::Inches ? "in" : "mm";
  attribute(writer, "width", number(drawing.pageWidth) + unit);
  attribute(writer, "height", number(drawing.pageHeight) + unit);
  attribute(writer, "viewBox", "0 0 " + number(drawing.pageWidth) + " " + number(drawing.pageHeight));
  if (!about.title.empty()) xmlTextWriterWriteElement(writer, xml("title"), xml(about.title.c_str()));
  if (!about.note.empty()) xmlTextWriterWriteElement(writer, xml("desc"), xml(about.note.c_str()));
  if (!about.tags.empty()) writeTags(writer, about.tags);
  if (drawing.layers.empty()) {
    writePaths(writer, drawing, groupsOf(drawing, look.element), std::nullopt, "#000000", look);
  } else {
    writeLayers(writer, drawing, look);
  }
  xmlTextWriterEndElement(writer);
  if (xmlTextWriterEndDocument(writer) < 0 || xmlTextWriterFlush(writer) < 0) {
    throw WriteError("the drawing could not be written: the disk may be full.");
  }
}

}  // namespace

void writeSvg(const Drawing& drawing, const std::filesystem::path& file, const std::string& note, const SvgLook& look) {
  writeSvg(drawing, file, SvgAbout{{}, note, {}}, look);
}

void writeSvg(const Drawing& drawing, const std::filesystem::path& file, const SvgAbout& about, const SvgLook& look) {
  writeBeside(file, [&drawing, &about, look](const std::filesystem::path& beside) {
    const std::unique_ptr<xmlTextWriter, void (*)(xmlTextWriter*)> writer(xmlNewTextWriterFilename(beside.c_str(), 0),
                                                                          &xmlFreeTextWriter);
    if (!writer) throw WriteError("the file cannot be opened for writing.");
    writeDocument(writer.get(), drawing, about, look);
  });
}

std::string svgText(const Drawing& drawing, const std::string& note, const SvgLook& look) {
  const std::unique_ptr<xmlBuffer, void (*)(xmlBuffer*)> buffer(xmlBufferCreate(), &xmlBufferFree);
  if (!buffer) throw WriteError("there is not enough memory for the drawing.");
  {
    const std::unique_ptr<xmlTextWriter, void (*)(xmlTextWriter*)> writer(xmlNewTextWriterMemory(buffer.get(), 0),
                                                                          &xmlFreeTextWriter);
    if (!writer) throw WriteError("there is not enough memory for the drawing.");
    writeDocument(writer.get(), drawing, SvgAbout{{}, note, {}}, look);
  }
  return reinterpret_cast<const char*>(xmlBufferContent(buffer.get()));
}

}  // namespace rim::io::svg
