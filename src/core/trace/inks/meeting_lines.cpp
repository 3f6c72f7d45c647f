#include "core/trace/inks/meeting_lines.h"

#include <cmath>

namespace rim::trace::inks {

double offFrom(const MeetingLine& line, Point place) { return std::abs(cross(line.direction, place - line.place)); }

void LineMeeting::add(const MeetingLine& line, double weight) {
  const Point n = leftNormal(line.direction);
  const double at = dot(n, line.place);
  xx_ += weight * n.x * n.x;
  xy_ += weight * n.x * n.y;
  yy_ += weight * n.y * n.y;
  x_ += weight * n.x * at;
  y_ += weight * n.y * at;
}

void LineMeeting::addPoint(Point place, double weight) {
  add({place, {1, 0}}, weight);
  add({place, {0, 1}}, weight);
}

std::optional<Point> LineMeeting::place() const {
  constexpr double kParallel = 1e-9;
  const double det = xx_ * yy_ - xy_ * xy_;
  if (det <= kParallel) return std::nullopt;
  return Point{(x_ * yy_ - y_ * xy_) / det, (xx_ * y_ - xy_ * x_) / det};
}

}  // namespace rim::trace::inks
