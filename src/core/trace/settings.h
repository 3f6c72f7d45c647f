#pragma once

#include <optional>

namespace rim {

/// What is made exact where the border allows it. Each can be switched off.
struct Rules {
  bool level = true;       ///< lines within 0.3 degrees of level or upright become so
  bool parallel = true;    ///< lines of an outline within 0.3 degrees of parallel or square to each other
  bool equalRadii = true;  ///< arcs of an outline, and circles, whose radii hardly differ
  bool concentric = true;  ///< circles whose centres hardly differ
  bool tangent = true;     ///< arcs that go over smoothly into lines or each other touch them exactly

  friend bool operator==(const Rules&, const Rules&) = default;
};

/// How a picture is traced.
struct TraceSettings {
  std::optional<int> threshold;  ///< 0..255, darker is ink; none: Otsu's
  bool lightIsInk = false;       ///< the light part is the ink
  double tolerancePx = 0.35;     ///< how far an outline may leave the measured border, 0.05..10
  double minAreaPx2 = 4;         ///< smaller islands and holes are left out, >= 0
  double cornerReadiness = 50;   ///< 0..100
  Rules rules;                   ///< what is made exact where the border allows it

  friend bool operator==(const TraceSettings&, const TraceSettings&) = default;
};

}  // namespace rim
