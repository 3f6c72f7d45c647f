#include "core/trace/outline/within_picture.h"

#include <algorithm>

#include "core/geometry/curve_form.h"

namespace rim::trace::outline {

Path withinPicture(Path path, cv::Size picture) {
  constexpr double kHardlyPx = 0.02;
  constexpr double kCubicsWithinPx = 0.01;
  const Point far{static_cast<double>(picture.width), static_cast<double>(picture.height)};
  const Box box = boxOf(path);
  const bool within = box.low.x >= -kHardlyPx && box.low.y >= -kHardlyPx && box.high.x <= far.x + kHardlyPx &&
                      box.high.y <= far.y + kHardlyPx;
  if (within) return path;
  // A cubic lies within the hull of its nodes and handles.
  path = inForm(path, CurveForm::Beziers, kCubicsWithinPx);
  const auto held = [far](Point p) { return Point{std::clamp(p.x, 0.0, far.x), std::clamp(p.y, 0.0, far.y)}; };
  path.start = held(path.start);
  for (Segment& segment : path.segments) {
    segment.end = held(segment.end);
    if (segment.kind != SegmentKind::Cubic) continue;
    segment.handle1 = held(segment.handle1);
    segment.handle2 = held(segment.handle2);
  }
  return path;
}

}  // namespace rim::trace::outline
