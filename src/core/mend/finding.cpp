#include "core/mend/finding.h"

#include <array>
#include <cstdio>

namespace rim {

std::string nameOf(FindingKind kind) {
  constexpr std::array<const char*, kFindingKinds> kNames{"open-end", "double-line", "stroke-pair",     "self-crossing",
                                                          "loop",     "crossing",    "coincident-node", "zero-length",
                                                          "spike",    "speck",       "stray",           "frame"};
  return kNames[static_cast<std::size_t>(kind)];
}

std::string mmText(double mm) {
  std::array<char, 48> text{};
  if (mm >= 0.095) {
    std::snprintf(text.data(), text.size(), mm >= 99.5 ? "%.0f mm" : "%.2f mm", mm);
  } else if (mm < 0.0005) {
    std::snprintf(text.data(), text.size(), "0 mm");
  } else {
    std::snprintf(text.data(), text.size(), "%.3f mm", mm);
  }
  return text.data();
}

}  // namespace rim
