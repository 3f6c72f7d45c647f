#pragma once

namespace rim {

/// Where a function of one number is least between two others, if it falls to there and rises behind it, by golden
/// sections (J. Kiefer, "Sequential minimax search for a maximum", Proc. AMS 4 (1953), 502-506): each of `steps` (>= 0)
/// leaves 0.618 of the stretch, the middle of the last one is given.
template <class Function>
double leastBetween(double low, double high, int steps, const Function& valueAt) {
  constexpr double kGolden = 0.6180339887498949;
  double left = high - kGolden * (high - low);
  double right = low + kGolden * (high - low);
  double atLeft = valueAt(left);
  double atRight = valueAt(right);
  for (int k = 0; k < steps; ++k) {
    if (atLeft <= atRight) {
      high = right;
      right = left;
      atRight = atLeft;
      left = high - kGolden * (high - low);
      atLeft = valueAt(left);
    } else {
      low = left;
      left = right;
      atLeft = atRight;
      right = low + kGolden * (high - low);
      atRight = valueAt(right);
    }
  }
  return (low + high) / 2;
}

}  // namespace rim
