#pragma once

#include "core/geometry/point.h"

namespace rim::job {

/// The sheet or plate that is cut from, as it lies under a drawing (mm, y up).
struct Stock {
  double widthMm = 300;
  double heightMm = 200;
  Point at;  ///< its lower left corner

  friend bool operator==(const Stock&, const Stock&) = default;
};

/// The least and the most that a stock measures, and the farthest that it lies off, mm.
inline constexpr double kLeastStockMm = 1;
inline constexpr double kMostStockMm = 100'000;

inline Box boxOf(const Stock& stock) { return {stock.at, stock.at + Point{stock.widthMm, stock.heightMm}}; }

}  // namespace rim::job
