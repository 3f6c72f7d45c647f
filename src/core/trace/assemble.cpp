#include "core/trace/assemble.h"

#include <limits>
#include <numbers>

#include "core/geometry/arc.h"
#include "core/trace/section.h"

namespace rim {
namespace {

/// A straight piece longer than this, and longer than its smooth neighbours by this much, is no
/// part of a curve.
constexpr double kLongLinePx = 12;
constexpr double kLongerThanNeighbours = 1.2;
/// An arc that turns off a shared tangent by so many degrees costs this much a degree.
constexpr double kSameTangentDegrees = 0.5;
constexpr double kPricePerDegree = 10;

bool isLine(const Piece& p) { return p.primitive.kind == Primitive::Kind::Line; }

double degreesBetween(Point a, Point b) { return std::abs(angleBetween(a, b)) * 180 / std::numbers::pi; }

/// The arc between two nodes that goes through the circle's own middle between them: nodes may lie
/// a little off the circle.
Segment arcOf(const Primitive& circle, Point from, Point to) {
  double sweep = angleBetween(from - circle.place, to - circle.place);
  if (circle.radius > 0 && sweep < 0) sweep += 2 * std::numbers::pi;
  if (circle.radius < 0 && sweep > 0) sweep -= 2 * std::numbers::pi;
  const Point spoke = unit(from - circle.place);
  const Point middle =
      circle.place + (spoke * std::cos(sweep / 2) + leftNormal(spoke) * std::sin(sweep / 2)) * std::abs(circle.radius);
  const Point chord = to - from;
  const double sagitta = cross(unit(chord), lerp(from, to, 0.5) - middle);
  return Segment::arc(to, 2 * sagitta / length(chord));
}

class Assembler {
 public:
  Assembler(const Track& track, const Chain& chain, const SplitLimits& limits, const MeasuredPlaces& measured,
            double kinkDegrees)
      : track_(track), chain_(chain), limits_(limits), kinkDegrees_(kinkDegrees), nodes_(chain.nodes) {
    for (const Piece& piece : chain.pieces) measured_.push_back(passes(piece, measured));
    // What is left as measured begins and ends on the border.
    for (std::size_t k = 0; k < measured_.size(); ++k) {
      if (!measured_[k]) continue;
      nodes_[k] = {track.point(piece(k).from), true, {}};
      nodes_[(k + 1) % nodes_.size()] = {track.point(piece(k).to), true, {}};
    }
  }

  Path path() const {
    Path path{nodes_[0].place, {}, true};
    const std::size_t n = chain_.pieces.size();
    for (std::size_t k = 0; k < n;) {
      if (measured_[k]) {
        addMeasured(k, path);
        ++k;
        continue;
      }
      std::size_t end = k + 1;
      if (!isLongLine(k)) {
        while (end < n && !nodeAt(end).corner && !measured_[end] && !isLongLine(end)) ++end;
      }
      addSection(k, end, path);
      k = end;
    }
    // At node 0 one side at most has moved.
    if (path.start == nodes_[0].place) path.start = path.segments.back().end;
    path.segments.back().end = path.start;
    return path;
  }

 private:
  const Piece& piece(std::size_t k) const { return chain_.pieces[k % chain_.pieces.size()]; }
  const Node& nodeAt(std::size_t k) const { return nodes_[k % nodes_.size()]; }
  double wayOf(std::size_t k) const { return track_.way(piece(k).to) - track_.way(piece(k).from); }

  bool isLongLine(std::size_t k) const {
    const double way = wayOf(k);
    if (!isLine(piece(k)) || way <= kLongLinePx) return false;
    const std::size_t n = chain_.pieces.size();
    const double before = nodeAt(k).corner ? 0 : wayOf(k + n - 1);
    const double after = nodeAt(k + 1).corner ? 0 : wayOf(k + 1);
    return way > kLongerThanNeighbours * std::max(before, after);
  }

  bool passes(const Piece& piece, const MeasuredPlaces& measured) const {
    const std::span<const Point> points = track_.points(piece.from, piece.to + 1);
    const auto near = [points, reach = measured.reachPx](Point place) {
      return std::any_of(points.begin(), points.end(), [=](Point p) { return distance(p, place) < reach; });
    };
    return std::any_of(measured.places.begin(), measured.places.end(), near);
  }

  void addMeasured(std::size_t k, Path& path) const {
    for (std::size_t i = piece(k).from + 1; i < piece(k).to; ++i)
      path.segments.push_back(Segment::line(track_.point(i)));
    path.segments.push_back(Segment::line(nodeAt(k + 1).place));
  }

  struct Priced {
    double price = 0;
    std::vector<Segment> segments;
  };

  /// The pieces from k to end as the lines and arcs that they are.
  Priced asPrimitives(std::size_t k, std::size_t end) const {
    Priced priced;
    for (; k < end; ++k) {
      const Point to = nodeAt(k + 1).place;
      if (isLine(piece(k))) {
        priced.segments.push_back(Segment::line(to));
        priced.price += kPriceOfLine;
        continue;
      }
      const Segment arc = arcOf(piece(k).primitive, nodeAt(k).place, to);
      priced.segments.push_back(arc);
      priced.price += kPriceOfArc + kPricePerDegree * tangentFault(k, arc);
    }
    return priced;
  }

  /// By how many degrees, beyond what is allowed, an arc turns off the tangents at its smooth nodes.
  double tangentFault(std::size_t k, const Segment& arc) const {
    const Node& from = nodeAt(k);
    const Node& to = nodeAt(k + 1);
    const double atStart = from.corner ? 0 : degreesBetween(startTangent(from.place, arc), from.tangent);
    const double atEnd = to.corner ? 0 : degreesBetween(endTangent(from.place, arc), to.tangent);
    return std::max(0.0, atStart - kSameTangentDegrees) + std::max(0.0, atEnd - kSameTangentDegrees);
  }

  double misfitOf(std::size_t k, std::size_t end) const {
    double misfit = 0;
    for (; k < end; ++k) {
      const auto [from, to] = track_.within(piece(k).from, piece(k).to, limits_.trimPx);
      double sum = 0;
      for (const Point p : track_.points(from, to)) {
        const double off = distance(p, project(piece(k).primitive, p));
        sum += off * off;
      }
      const auto count = static_cast<double>(to - from);
      misfit += factsIn(count) * sum / count / (limits_.deviationPx * limits_.deviationPx);
    }
    return misfit;
  }

  /// The index between `low` and `high`, around `at`, of the point nearest to a place.
  std::size_t nearestIndex(std::size_t at, std::size_t low, std::size_t high, Point place) const {
    constexpr std::size_t kReach = 16;
    std::size_t best = at;
    const std::size_t end = std::min(at + kReach, high > 0 ? high - 1 : 0);
    for (std::size_t i = std::max(low + (low > 0 ? 1 : 0), at > kReach ? at - kReach : 0); i <= end; ++i) {
      if (distance(track_.point(i), place) < distance(track_.point(best), place)) best = i;
    }
    return best;
  }

  /// The unit tangent that a smooth neighbour outside the section asks for.
  std::optional<Point> sharedTangent(std::size_t node, std::size_t neighbour) const {
    if (nodeAt(node).corner) return std::nullopt;
    return isLine(piece(neighbour)) ? piece(neighbour).primitive.direction : nodeAt(node).tangent;
  }

  /// A smooth stretch is lines and arcs, or cubics all along, whichever costs less.
  void addSection(std::size_t k, std::size_t end, Path& path) const {
    Priced best = asPrimitives(k, end);
    const bool oneLine = end == k + 1 && isLine(piece(k));
    if (!oneLine) {
      best.price += misfitOf(k, end);
      const std::size_t n = chain_.pieces.size();
      Section section;
      for (std::size_t i = k; i < end; ++i) section.cuts.push_back(piece(i).from);
      section.cuts.push_back(piece(end - 1).to);
      section.kinkDegrees = kinkDegrees_;
      section.closed = end - k == n && !nodeAt(0).corner;
      // A smooth node lies where pieces touch, which may be some way from where they were split.
      section.cuts.front() = nearestIndex(section.cuts.front(), 0, section.cuts[1], nodeAt(k).place);
      section.cuts.back() =
          nearestIndex(section.cuts.back(), section.cuts[section.cuts.size() - 2], track_.last(), nodeAt(end).place);
      section.start = nodeAt(k).place;
      section.end = nodeAt(end).place;
      if (!section.closed) {
        section.startTangent = sharedTangent(k, k + n - 1);
        section.endTangent = sharedTangent(end, end);
        section.startSlides = section.startTangent && isLine(piece(k + n - 1));
        section.endSlides = section.endTangent && isLine(piece(end));
      }
      if (const auto curves = curvesAlong(track_, section, limits_); curves && curves->price < best.price) {
        best.segments.clear();
        for (const Cubic& c : curves->cubics) best.segments.push_back(Segment::cubic(c.p1, c.p2, c.p3));
        // The straight edge before them ends where they begin now.
        (path.segments.empty() ? path.start : path.segments.back().end) = curves->cubics.front().p0;
      }
    }
    path.segments.insert(path.segments.end(), best.segments.begin(), best.segments.end());
  }

  const Track& track_;
  const Chain& chain_;
  const SplitLimits& limits_;
  double kinkDegrees_;
  std::vector<Node> nodes_;
  std::vector<bool> measured_;
};

}  // namespace

Path assemble(const Track& track, const Chain& chain, const SplitLimits& limits, const MeasuredPlaces& measured,
              double kinkDegrees) {
  return Assembler(track, chain, limits, measured, kinkDegrees).path();
}

}  // namespace rim
