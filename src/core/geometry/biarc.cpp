#include "core/geometry/biarc.h"

#include "core/geometry/arc.h"

namespace rim {
namespace {

Segment arcOrLine(Point start, Point tangent, Point end) {
  return Segment::arc(end, bulgeFromTangent(start, tangent, end));
}

}  // namespace

std::vector<Segment> biarc(Point start, Point startTangent, Point end, Point endTangent) {
  const Point chord = end - start;
  const double square = dot(chord, chord);
  if (square == 0) return {Segment::line(end)};
  const double straight = std::max(std::abs(cross(startTangent, chord)), std::abs(cross(endTangent, chord)));
  if (straight < 1e-9 * std::sqrt(square) && dot(startTangent, chord) > 0 && dot(endTangent, chord) > 0) {
    return {Segment::line(end)};
  }
  // The tangent length d solves 2 d^2 (1 - t0.t1) + 2 d chord.(t0 + t1) - chord.chord = 0.
  const double a = 2 * (1 - dot(startTangent, endTangent));
  const double b = 2 * dot(chord, startTangent + endTangent);
  const double root = std::sqrt(std::max(0.0, b * b + 4 * a * square));
  const double d = b + root > 0 ? 2 * square / (b + root) : -1;
  if (!(d > 0) || d > 1e3 * std::sqrt(square)) return {Segment::line(end)};
  const Point joint = lerp(start + startTangent * d, end - endTangent * d, 0.5);
  const Segment first = arcOrLine(start, startTangent, joint);
  const Point jointTangent = rim::endTangent(start, first);
  return {first, arcOrLine(joint, jointTangent, end)};
}

}  // namespace rim
