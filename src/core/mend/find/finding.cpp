#include "core/mend/find/finding.h"

#include <array>
#include <charconv>
#include <string_view>

namespace rim::mend {

bool isCrossing(const Finding& finding) {
  return finding.kind == FindingKind::SelfCrossing || finding.kind == FindingKind::Loop ||
         finding.kind == FindingKind::Crossing;
}

std::string nameOf(FindingKind kind) {
  constexpr std::array<const char*, kFindingKinds> kNames{
      "unjoined",        "open-end",    "double-line", "stroke-pair", "self-crossing", "loop",  "crossing",
      "coincident-node", "zero-length", "spike",       "speck",       "stray",         "frame", "lost-decision"};
  return kNames[static_cast<std::size_t>(kind)];
}

std::string sizeText(double mm, Unit unit) {
  const auto with = [](double value, int decimals, const char* name) {
    std::array<char, 330> digits{};  // any double, written out
    const auto end =
        std::to_chars(digits.data(), digits.data() + digits.size(), value, std::chars_format::fixed, decimals);
    return std::string(digits.data(), end.ptr) + name;
  };
  if (unit == Unit::Inch) return with(mm / kMmPerInch, 4, " in");
  if (mm >= 99.5) return with(mm, 0, " mm");
  if (mm >= 0.095) return with(mm, 2, " mm");
  return mm < 0.0005 ? "0 mm" : with(mm, 3, " mm");
}

std::string sentenceOf(const Finding& finding, Unit unit) {
  constexpr std::string_view kPlace = "{}";
  std::string out = finding.words;
  std::size_t at = 0;
  for (const double mm : finding.lengthsMm) {
    at = out.find(kPlace, at);
    if (at == std::string::npos) break;
    const std::string size = sizeText(mm, unit);
    out.replace(at, kPlace.size(), size);
    at += size.size();
  }
  return out;
}

}  // namespace rim::mend
