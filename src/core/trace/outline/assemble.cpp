#include "core/trace/outline/assemble.h"

#include <limits>
#include <numbers>

#include "core/geometry/arc.h"
#include "core/geometry/fewer_points.h"
#include "core/trace/fit/curve_fit.h"
#include "core/trace/outline/corner.h"
#include "core/trace/outline/section.h"

namespace rim::trace::outline {
namespace {

/// A straight piece longer than this, and longer than its smooth neighbours by this much, is no
/// part of a curve.
constexpr double kLongLinePx = 12;
constexpr double kLongerThanNeighbours = 1.2;
/// A corner is looked for so far round the place where pieces were split.
constexpr double kCornerReachPx = 6;
/// So much of its parameter a cubic is prolonged towards a corner.
constexpr double kMostProlonged = 0.35;
/// An arc that turns off a shared tangent by so many degrees costs this much a degree.
constexpr double kSameTangentDegrees = 0.5;
constexpr double kPricePerDegree = 10;

double degreesBetween(Point a, Point b) { return std::abs(angleBetween(a, b)) * 180 / std::numbers::pi; }

/// The arc between two nodes that goes through the circle's own middle between them: nodes may lie
/// a little off the circle. One that goes most of the way round is two: its chord would be so short that a
/// node a little off would turn all of it.
std::vector<Segment> arcsOf(const fit::Primitive& circle, Point from, Point to) {
  constexpr double kMostSweep = 1.1 * std::numbers::pi;
  double sweep = angleBetween(from - circle.place, to - circle.place);
  if (circle.radius > 0 && sweep < 0) sweep += 2 * std::numbers::pi;
  if (circle.radius < 0 && sweep > 0) sweep -= 2 * std::numbers::pi;
  const Point spoke = unit(from - circle.place);
  const Point middle =
      circle.place + (spoke * std::cos(sweep / 2) + leftNormal(spoke) * std::sin(sweep / 2)) * std::abs(circle.radius);
  if (std::abs(sweep) > kMostSweep) {
    std::vector<Segment> halves = arcsOf(circle, from, middle);
    halves.push_back(arcsOf(circle, middle, to).front());
    return halves;
  }
  const Point chord = to - from;
  const double sagitta = cross(unit(chord), lerp(from, to, 0.5) - middle);
  return {Segment::arc(to, 2 * sagitta / length(chord))};
}

/// What stands for the pieces from `from` up to, not including, `end`.
struct Part {
  std::size_t from = 0;
  std::size_t end = 0;
  std::vector<Cubic> curves;  ///< empty: the pieces' own lines and arcs, or the border's points
};

class Assembler {
 public:
  Assembler(const split::Track& track, const Chain& chain, const split::SplitLimits& limits,
            const MeasuredPlaces& measured, double kinkDegrees)
      : track_(track),
        chain_(chain),
        limits_(limits),
        kinkDegrees_(kinkDegrees),
        measuredTolerancePx_(measured.tolerancePx),
        nodes_(chain.nodes) {
    for (const split::TrackPiece& piece : chain.pieces) measured_.push_back(passes(piece, measured));
    // What is left as measured begins and ends on the border.
    for (std::size_t k = 0; k < measured_.size(); ++k) {
      if (!measured_[k]) continue;
      nodes_[k] = {track.point(piece(k).from), true, {}, true};
      nodes_[(k + 1) % nodes_.size()] = {track.point(piece(k).to), true, {}, true};
    }
  }

  Path path() {
    const std::size_t n = chain_.pieces.size();
    std::vector<Part> parts;
    for (std::size_t k = 0; k < n; k = parts.back().end) {
      std::size_t end = k + 1;
      if (!measured_[k] && !isLongLine(k)) {
        while (end < n && !nodeAt(end).corner && !measured_[end] && !isLongLine(end)) ++end;
      }
      parts.push_back({k, end, measured_[k] ? std::vector<Cubic>() : bestCurves(k, end)});
    }
    const std::size_t joints = parts.size() - (closed() ? 0 : 1);
    for (std::size_t i = 0; i < joints; ++i) joinParts(parts[i], parts[(i + 1) % parts.size()]);
    if (!closed()) endParts(parts.front(), parts.back());
    for (Part& part : parts) {
      if (anyHooks(part.curves)) part.curves.clear();
    }
    Path path{nodes_[0].place, {}, closed()};
    for (const Part& part : parts) add(part, path);
    path.segments.back().end = closed() ? path.start : nodes_.back().place;
    return path;
  }

 private:
  bool closed() const { return track_.closed(); }
  const split::TrackPiece& piece(std::size_t k) const { return chain_.pieces[k % chain_.pieces.size()]; }
  const Node& nodeAt(std::size_t k) const { return nodes_[k % nodes_.size()]; }
  double wayOf(std::size_t k) const { return split::arcLengthOf(track_, piece(k)); }

  bool isLongLine(std::size_t k) const {
    const double way = wayOf(k);
    if (!isLine(piece(k).primitive) || way <= kLongLinePx) return false;
    const std::size_t n = chain_.pieces.size();
    const double before = nodeAt(k).corner ? 0 : wayOf(k + n - 1);
    const double after = nodeAt(k + 1).corner ? 0 : wayOf(k + 1);
    return way > kLongerThanNeighbours * std::max(before, after);
  }

  bool passes(const split::TrackPiece& piece, const MeasuredPlaces& measured) const {
    const std::span<const Point> points = track_.points(piece.from, piece.to + 1);
    const auto near = [points, reach = measured.reachPx](Point place) {
      return std::any_of(points.begin(), points.end(), [=](Point p) { return distance(p, place) < reach; });
    };
    return std::any_of(measured.places.begin(), measured.places.end(), near);
  }

  void add(const Part& part, Path& path) const {
    if (measured_[part.from]) {
      const split::TrackPiece& own = piece(part.from);
      const std::vector<Point> few = fewerPoints(track_.points(own.from, own.to + 1), measuredTolerancePx_);
      for (std::size_t i = 1; i + 1 < few.size(); ++i) path.segments.push_back(Segment::line(few[i]));
      path.segments.push_back(Segment::line(nodeAt(part.end).place));
    } else if (part.curves.empty()) {
      const std::vector<Segment> segments = asPrimitives(part.from, part.end).segments;
      path.segments.insert(path.segments.end(), segments.begin(), segments.end());
    } else {
      for (const Cubic& c : part.curves) path.segments.push_back(Segment::cubic(c.p1, c.p2, c.p3));
    }
  }

  // ---- where parts meet ----

  CornerSide sideOf(const Part& part, bool before) const {
    CornerSide side{piece(before ? part.end - 1 : part.from).primitive, std::nullopt};
    if (!part.curves.empty()) side.cubic = before ? part.curves.back() : part.curves.front();
    return side;
  }

  /// Curves end where they end when they go over smoothly into the next part; at a corner both sides
  /// are prolonged until they meet.
  void joinParts(Part& before, Part& after) {
    Node& node = nodes_[after.from];
    const bool curves = !before.curves.empty() || !after.curves.empty();
    if (!curves) return;
    if (!node.corner) {
      node.place = before.curves.empty() ? after.curves.front().p0 : before.curves.back().p3;
    } else if (const auto corner = node.held ? std::nullopt : cornerBetween(before, after, node.place)) {
      node.place = corner->place;
      if (!before.curves.empty()) before.curves.back() = rim::split(before.curves.back(), corner->before).first;
      if (!after.curves.empty()) after.curves.front() = rim::split(after.curves.front(), corner->after).second;
    } else {
      if (!before.curves.empty()) prolongEnd(before.curves.back(), node.place);
      if (!after.curves.empty()) prolongBeginning(after.curves.front(), node.place);
    }
    if (!before.curves.empty()) endAt(before.curves.back(), node.place);
    if (!after.curves.empty()) beginAt(after.curves.front(), node.place);
  }

  /// Curves are fitted short of a corner: where both sides do not meet they are prolonged as near to its place as they
  /// come, which bends them less than another end does.
  static void prolongEnd(Cubic& cubic, Point place) {
    const Cubic longer = rim::split(cubic, nearestFrom(cubic, 1, kMostProlonged, place)).first;
    if (!fit::hooks(longer)) cubic = longer;
  }

  static void prolongBeginning(Cubic& cubic, Point place) {
    const Cubic longer = rim::split(cubic, nearestFrom(cubic, 0, -kMostProlonged, place)).second;
    if (!fit::hooks(longer)) cubic = longer;
  }

  /// The parameter from `from` to `from + most` where the cubic, prolonged, comes nearest to a place.
  static double nearestFrom(const Cubic& cubic, double from, double most, Point place) {
    constexpr int kSteps = 32;
    double best = from;
    for (int i = 1; i <= kSteps; ++i) {
      const double t = from + most * i / kSteps;
      if (distance(pointOn(cubic, t), place) < distance(pointOn(cubic, best), place)) best = t;
    }
    return best;
  }

  /// Curves at an open border's ends end where its nodes are.
  void endParts(Part& first, Part& last) {
    if (!first.curves.empty()) beginAt(first.curves.front(), nodes_.front().place);
    if (!last.curves.empty()) endAt(last.curves.back(), nodes_.back().place);
  }

  /// Another end for a cubic; its handle goes with it where the cubic would hook otherwise.
  static void beginAt(Cubic& cubic, Point place) {
    const Point move = place - cubic.p0;
    cubic.p0 = place;
    if (fit::hooks(cubic)) cubic.p1 = cubic.p1 + move;
  }

  static void endAt(Cubic& cubic, Point place) {
    const Point move = place - cubic.p3;
    cubic.p3 = place;
    if (fit::hooks(cubic)) cubic.p2 = cubic.p2 + move;
  }

  static bool anyHooks(const std::vector<Cubic>& curves) {
    return std::any_of(curves.begin(), curves.end(), fit::hooks);
  }

  /// The corner of two parts, when the border comes as near to it as it should, and the corner of their pieces, `near`.
  std::optional<CornerPlace> cornerBetween(const Part& before, const Part& after, Point near) const {
    const auto corner = meetSides(sideOf(before, true), sideOf(after, false), near);
    if (!corner) return std::nullopt;
    const double reach = mostRetreat(corner->turn, limits_.trimPx, limits_.deviationPx);
    const double around = reach + kCornerReachPx;
    if (hooksAt(before, after, *corner)) return std::nullopt;
    const double off = std::min(track_.distanceNear(piece(before.end - 1).to, around, corner->place),
                                track_.distanceNear(piece(after.from).from, around, corner->place));
    if (off > reach || distance(corner->place, near) > reach) return std::nullopt;
    return corner;
  }

  static bool hooksAt(const Part& before, const Part& after, const CornerPlace& corner) {
    return (!before.curves.empty() && fit::hooks(rim::split(before.curves.back(), corner.before).first)) ||
           (!after.curves.empty() && fit::hooks(rim::split(after.curves.front(), corner.after).second));
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
      if (isLine(piece(k).primitive)) {
        priced.segments.push_back(Segment::line(to));
        priced.price += split::kPriceOfLine;
        continue;
      }
      const std::vector<Segment> arcs = arcsOf(piece(k).primitive, nodeAt(k).place, to);
      priced.price += split::kPriceOfArc + kPricePerDegree * tangentFault(k, arcs);
      priced.segments.insert(priced.segments.end(), arcs.begin(), arcs.end());
    }
    return priced;
  }

  /// By how many degrees, beyond what is allowed, an arc turns off the tangents at its smooth nodes.
  double tangentFault(std::size_t k, const std::vector<Segment>& arcs) const {
    const Node& from = nodeAt(k);
    const Node& to = nodeAt(k + 1);
    const double atStart = from.corner ? 0 : degreesBetween(startTangent(from.place, arcs.front()), from.tangent);
    const double atEnd =
        to.corner
            ? 0
            : degreesBetween(endTangent(arcs.size() > 1 ? arcs.front().end : from.place, arcs.back()), to.tangent);
    return std::max(0.0, atStart - kSameTangentDegrees) + std::max(0.0, atEnd - kSameTangentDegrees);
  }

  double misfitOf(std::size_t k, std::size_t end) const {
    double misfit = 0;
    for (; k < end; ++k) {
      const auto [from, to] = track_.within(piece(k).from, piece(k).to, limits_.trimPx);
      misfit += split::misfitPrice(track_.points(from, to), piece(k).primitive, limits_.deviationPx);
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

  Section sectionOf(std::size_t k, std::size_t end) const {
    const std::size_t n = chain_.pieces.size();
    Section section;
    section.kinkDegrees = kinkDegrees_;
    for (std::size_t i = k; i < end; ++i) section.cuts.push_back(piece(i).from);
    section.cuts.push_back(piece(end - 1).to);
    section.closed = closed() && end - k == n && !nodeAt(0).corner;
    if (section.closed) {
      section.start = section.end = nodeAt(0).place;
      return section;
    }
    beginAt(k, k + n - 1, section.cuts.front(), 1, section.cuts[1], section.start, section.startTangent);
    beginAt(end, end, section.cuts.back(), -1, section.cuts[section.cuts.size() - 2], section.end, section.endTangent);
    section.startSlides = section.startTangent && isLongLine((k + n - 1) % n);
    section.endSlides = section.endTangent && isLongLine(end % n);
    return section;
  }

  /// How much of a side is rounded off at a corner: in a sharp one, up to where it is about as wide as edges smear.
  double roundedOffAt(std::size_t node) const {
    constexpr double kMostTrims = 1.6;
    const std::size_t n = chain_.pieces.size();
    const Point at = nodeAt(node).place;
    const double turn =
        angleBetween(fit::tangentAt(piece(node + n - 1).primitive, at), fit::tangentAt(piece(node).primitive, at));
    const double opening = std::tan((std::numbers::pi - std::abs(turn)) / 2);
    return limits_.trimPx * std::clamp(1 / std::max(opening, 1e-6), 1.0, kMostTrims);
  }

  std::size_t nearestTo(Point place, std::size_t cut, std::size_t other, int inwards) const {
    return inwards > 0 ? nearestIndex(cut, 0, other, place) : nearestIndex(cut, other, track_.last(), place);
  }

  /// How a section begins (`inwards` 1) or ends (-1): behind what a corner rounds off, or where it goes
  /// over smoothly into its neighbour.
  void beginAt(std::size_t node, std::size_t neighbour, std::size_t& cut, int inwards, std::size_t other,
               std::optional<Point>& place, std::optional<Point>& tangent) const {
    if (!closed() && (node == 0 || node + 1 == nodes_.size())) {
      place = nodeAt(node).place;
      return;
    }
    if (nodeAt(node).corner) {
      // What lies between two pieces may be more than a corner's tip.
      cut = nearestTo(nodeAt(node).place, cut, other, inwards);
      const double room = std::abs(track_.arcLength(other) - track_.arcLength(cut));
      const double trim = std::min(roundedOffAt(node), room / 4);
      cut = track_.indexAt(track_.arcLength(cut) + inwards * trim);
      return;
    }
    // A smooth node lies where pieces touch, which may be some way from where they were split.
    place = nodeAt(node).place;
    cut = nearestTo(*place, cut, other, inwards);
    tangent = isLine(piece(neighbour).primitive) ? piece(neighbour).primitive.direction : nodeAt(node).tangent;
  }

  /// A smooth stretch is lines and arcs, or cubics all along, whichever costs less; nothing for the
  /// former.
  std::vector<Cubic> bestCurves(std::size_t k, std::size_t end) const {
    if (end == k + 1 && isLine(piece(k).primitive)) return {};
    const double asPieces = asPrimitives(k, end).price + misfitOf(k, end);
    if (asPieces <= kPriceOfCubic) return {};
    Section section = sectionOf(k, end);
    auto curves = curvesAlong(track_, section, limits_);
    if (curves && anyHooks(curves->cubics) && section.cuts.size() > 3) {
      // Short pieces at the tips of sharp corners follow what pixels made of them.
      section.cuts.erase(section.cuts.end() - 2);
      section.cuts.erase(section.cuts.begin() + 1);
      curves = curvesAlong(track_, section, limits_);
    }
    if (!curves || anyHooks(curves->cubics)) return {};
    return curves->price < asPieces ? curves->cubics : std::vector<Cubic>();
  }

  const split::Track& track_;
  const Chain& chain_;
  const split::SplitLimits& limits_;
  double kinkDegrees_;
  double measuredTolerancePx_;
  std::vector<Node> nodes_;
  std::vector<bool> measured_;
};

}  // namespace

Path assemble(const split::Track& track, const Chain& chain, const split::SplitLimits& limits,
              const MeasuredPlaces& measured, double kinkDegrees) {
  return Assembler(track, chain, limits, measured, kinkDegrees).path();
}

}  // namespace rim::trace::outline
