#include "core/io/dxf/dxf_groups.h"

#include <array>
#include <charconv>
#include <cmath>
#include <set>

#include "core/io/common/line_fault.h"
#include "core/io/common/reading.h"
#include "core/io/dxf/dxf_text.h"

namespace rim::io::dxf {
namespace {

struct Group {
  int code = 0;
  std::string_view value;
  std::size_t line = 0;  ///< of the code, from 1
};

/// Gives out the groups of a text one after the other.
class Groups {
 public:
  explicit Groups(std::string_view text) : text_(text) {}

  Group next() {
    const std::size_t line = line_;
    if (at_ >= text_.size()) failAt(line, "the file ends before its EOF mark; it was cut off.");
    const std::string_view code = trimmed(takeLine());
    if (at_ >= text_.size()) failAt(line, "the file ends in the middle of a group; it was cut off.");
    Group group{0, trimmed(takeLine()), line};
    const auto [end, error] = std::from_chars(code.data(), code.data() + code.size(), group.code);
    if (error != std::errc() || end != code.data() + code.size()) {
      failAt(line, "a group code is expected, but here stands \"" + std::string(code.substr(0, 40)) + "\".");
    }
    return group;
  }

 private:
  std::string_view takeLine() {
    const auto end = std::min(text_.find('\n', at_), text_.size());
    const std::string_view line = text_.substr(at_, end - at_);
    at_ = end + 1;
    ++line_;
    return line;
  }

  std::string_view text_;
  std::size_t at_ = 0;
  std::size_t line_ = 1;
};

/// DXF reference, group code value types: which codes hold floating-point numbers and which whole ones.
bool holdsReal(int code) {
  return (code >= 10 && code <= 59) || (code >= 110 && code <= 149) || (code >= 210 && code <= 239);
}
bool holdsWhole(int code) {
  return (code >= 60 && code <= 99) || (code >= 170 && code <= 179) || (code >= 270 && code <= 289);
}

double realOf(const Group& group) {
  double value = 0;
  std::string_view text = group.value;
  if (!text.empty() && text.front() == '+') text.remove_prefix(1);
  const auto [end, error] = std::from_chars(text.data(), text.data() + text.size(), value);
  if (error != std::errc() || end != text.data() + text.size() || !std::isfinite(value)) {
    failAt(group.line + 1, "a number is expected for group " + std::to_string(group.code) + ", but here stands \"" +
                               std::string(group.value.substr(0, 40)) + "\".");
  }
  return value;
}

/// Places and lengths: the codes of coordinates and sizes. Angles and knots may be anything finite.
bool holdsPlace(int code) { return (code >= 10 && code <= 18) || (code >= 20 && code <= 28) || code == 40; }

void checkNumber(const Group& group, std::string_view entity) {
  if (holdsReal(group.code)) {
    const double value = realOf(group);
    const bool isKnot = entity == "SPLINE" && group.code == 40;
    if (holdsPlace(group.code) && !isKnot && std::abs(value) > kLargestCoordinate) {
      failAt(group.line + 1, "the number " + std::string(group.value.substr(0, 40)) +
                                 " is too large for a drawing (at most 10 million units).");
    }
  } else if (holdsWhole(group.code)) {
    constexpr double kLargestWhole = 2147483647;
    if (std::abs(realOf(group)) > kLargestWhole) failAt(group.line + 1, "a whole number is out of range.");
  }
}

bool isOutline(std::string_view type) {
  static const std::set<std::string_view> kOutlines{"LINE",     "ARC",    "CIRCLE", "ELLIPSE", "LWPOLYLINE",
                                                    "POLYLINE", "VERTEX", "SEQEND", "SPLINE",  "INSERT"};
  return kOutlines.count(type) != 0;
}

/// Counts that dxflib reserves memory by; they are written anew from what is there.
bool isCount(std::string_view entity, int code) {
  if (entity == "LWPOLYLINE") return code == 90;
  return entity == "SPLINE" && code >= 72 && code <= 74;
}

void add(std::string& text, int code, std::string_view value) {
  text += std::to_string(code);
  text += '\n';
  constexpr std::size_t kLongestValue = 1000;  // dxflib takes lines of up to 1024 bytes
  text += value.substr(0, kLongestValue);
  text += '\n';
}

std::string hexOf(std::size_t number) {
  std::array<char, 20> text{};
  const auto end = std::to_chars(text.data(), text.data() + text.size(), number, 16).ptr;
  return {text.data(), end};
}

/// Writes one entity, checked; its counts as they are.
void addEntity(std::string& text, const std::vector<Group>& groups) {
  const std::string_view type = groups.front().value;
  std::size_t vertices = 0, knots = 0, controls = 0, fits = 0;
  for (const Group& g : groups) {
    vertices += g.code == 10 ? 1U : 0U;
    knots += g.code == 40 ? 1U : 0U;
    controls += g.code == 10 ? 1U : 0U;
    fits += g.code == 11 ? 1U : 0U;
  }
  add(text, 0, type);
  add(text, 5, hexOf(groups.front().line));  // dxflib reads handles as hexadecimal
  if (type == "LWPOLYLINE") add(text, 90, std::to_string(vertices));
  if (type == "SPLINE") {
    add(text, 72, std::to_string(knots));
    add(text, 73, std::to_string(controls));
    add(text, 74, std::to_string(fits));
  }
  for (std::size_t i = 1; i < groups.size(); ++i) {
    const Group& g = groups[i];
    if (isCount(type, g.code) || g.code == 5) continue;
    if (g.code >= 1000) continue;  // a program's own data
    checkNumber(g, type);
    add(text, g.code, g.value);
  }
}

void checkStart(std::string_view bytes) {
  if (bytes.starts_with("AC10")) failAt(1, "this is a DWG, not a DXF; save it as DXF.");
  if (bytes.find('\0') != std::string_view::npos) failAt(1, "this is no DXF: it holds bytes that no text has.");
}

}  // namespace

CleanDxf cleanDxf(std::string_view bytes, const std::stop_token& stop) {
  if (bytes.starts_with("\xEF\xBB\xBF")) bytes.remove_prefix(3);
  checkStart(bytes);
  CleanDxf clean;
  clean.text.reserve(bytes.size());
  Groups groups(bytes);
  std::string_view section;
  std::vector<Group> item;  // of the tables BLOCKS and ENTITIES: what begins with a group 0
  bool nameFollows = false;
  const auto isMark = [](std::string_view v) {
    return v == "BLOCK" || v == "ENDBLK" || v == "SECTION" || v == "ENDSEC";
  };
  const auto flush = [&] {
    if (item.empty()) return;
    const std::string_view type = item.front().value;
    if (isOutline(type)) {
      addEntity(clean.text, item);
    } else if (isMark(type)) {
      for (const Group& g : item) {
        if (g.code >= 1000 || g.code == 5) continue;
        checkNumber(g, type);
        add(clean.text, g.code, g.value);
      }
    } else {
      ++clean.leftOut[std::string(type.substr(0, 40))];
    }
    item.clear();
  };
  while (true) {
    const Group g = groups.next();
    constexpr std::size_t kAskEvery = 4096;
    if (g.line % kAskEvery == 1 && stop.stop_requested()) throw Cancelled();
    if (g.code == 999) continue;
    if (g.code == 0 && g.value == "SECTION") {
      flush();
      nameFollows = true;
      add(clean.text, 0, g.value);
      continue;
    }
    if (nameFollows) {
      if (g.code != 2) failAt(g.line, "the name of a section is expected.");
      section = g.value;
      nameFollows = false;
      add(clean.text, 2, g.value);
      continue;
    }
    if (g.code == 0 && (g.value == "ENDSEC" || g.value == "EOF")) {
      flush();
      add(clean.text, 0, g.value);
      section = {};
      if (g.value == "EOF") return clean;
      continue;
    }
    if (section == "BLOCKS" || section == "ENTITIES") {
      if (g.code == 0) flush();
      if (g.code != 0 && item.empty()) failAt(g.line, "the name of an entity is expected.");
      item.push_back(g);
    } else if (section == "HEADER" || section == "TABLES") {
      if (g.code < 1000) add(clean.text, g.code, g.value);
    } else if (section.empty()) {
      failAt(g.line, "a section is expected; this is no DXF, or it is damaged.");
    }
  }
}

}  // namespace rim::io::dxf
