#pragma once

namespace rim {

/// What lengths are shown and written in. Inside, all are millimetres.
enum class Unit { Millimetre, Inch };

inline constexpr double kMmPerInch = 25.4;

/// The pixel of CSS, which SVG's plain numbers and px are (CSS Values and Units, 96 an inch).
inline constexpr double kMmPerCssPx = kMmPerInch / 96;

}  // namespace rim
