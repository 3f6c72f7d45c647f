#pragma once

#include <optional>

#include "core/geometry/point.h"

namespace rim::trace::inks {

/// A line by a place on it and its direction, a unit vector.
struct MeetingLine {
  Point place;
  Point direction;
};

/// How far a place is from a line.
double offFrom(const MeetingLine& line, Point place);

/// Where lines come nearest to each other: sums of the normal equations.
class LineMeeting {
 public:
  void add(const MeetingLine& line, double weight);
  void addPoint(Point place, double weight);

  /// The place with the least sum of squared distances by weight; nothing where all lines are parallel.
  std::optional<Point> place() const;

 private:
  double xx_ = 0;
  double xy_ = 0;
  double yy_ = 0;
  double x_ = 0;
  double y_ = 0;
};

}  // namespace rim::trace::inks
