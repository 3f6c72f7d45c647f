#include "core/trace/outline/rules.h"

#include <map>
#include <numbers>
#include <optional>
#include <utility>

#include "core/error.h"

namespace rim::trace::outline {
namespace {

constexpr double kSmooth = 18 * std::numbers::pi / 180;
constexpr double kQuarter = std::numbers::pi / 2;
/// Radii of one outline that differ by no more than this share may be meant to be equal.
constexpr double kRadiusShare = 0.04;

double angleOf(const split::TrackPiece& line) {
  return std::atan2(line.primitive.direction.y, line.primitive.direction.x);
}

/// From -45 to 45 degrees: how far an angle is from the nearest quarter turn.
double offQuarter(double angle) { return std::remainder(angle, kQuarter); }

void turn(fit::Primitive& line, double by) {
  const Point d = line.direction;
  line.direction = {d.x * std::cos(by) - d.y * std::sin(by), d.x * std::sin(by) + d.y * std::cos(by)};
}

class Regular {
 public:
  Regular(const split::Track& track, std::vector<split::TrackPiece> pieces, double tolerancePx)
      : track_(track), pieces_(std::move(pieces)), tolerance_(tolerancePx) {}

  std::vector<split::TrackPiece> made(const Rules& rules) {
    if (rules.level) makeLevel();
    if (rules.parallel) makeParallel();
    if (rules.equalRadii) makeRadiiEqual();
    if (rules.tangent) makeTangent();
    return std::move(pieces_);
  }

 private:
  /// The largest distance of the points that the piece follows, without what corners round off.
  double farthest(const split::TrackPiece& piece) const {
    constexpr double kTrimPx = 3.5;
    const auto [from, to] =
        track_.within(piece.from, piece.to, std::min(kTrimPx, split::arcLengthOf(track_, piece) / 4));
    double most = 0;
    for (const Point p : track_.points(from, to)) most = std::max(most, distance(p, fit::project(piece.primitive, p)));
    return most;
  }

  /// Takes the other primitive when the points stay near enough to it.
  bool take(split::TrackPiece& piece, const fit::Primitive& primitive) const {
    split::TrackPiece changed = piece;
    changed.primitive = primitive;
    constexpr double kHardlyMore = 0.03;
    constexpr double kShareOfTolerance = 0.6;
    if (farthest(changed) > std::max(kShareOfTolerance * tolerance_, farthest(piece) + kHardlyMore)) return false;
    if (!std::isfinite(primitive.place.x + primitive.place.y + primitive.radius)) return false;
    piece = changed;
    return true;
  }

  void makeLevel() {
    for (split::TrackPiece& piece : pieces_) {
      if (!isLine(piece.primitive)) continue;
      const double off = offQuarter(angleOf(piece));
      if (std::abs(off) > kMostTurnRadians) continue;
      fit::Primitive level = piece.primitive;
      turn(level, -off);
      // Exactly: the cosine of a quarter turn is not quite 0.
      level.direction = {std::round(level.direction.x), std::round(level.direction.y)};
      take(piece, level);
    }
  }

  std::vector<split::TrackPiece*> longestFirst(bool lines) {
    std::vector<split::TrackPiece*> some;
    for (split::TrackPiece& piece : pieces_) {
      if (isLine(piece.primitive) == lines) some.push_back(&piece);
    }
    std::stable_sort(some.begin(), some.end(), [this](const split::TrackPiece* a, const split::TrackPiece* b) {
      return split::arcLengthOf(track_, *a) > split::arcLengthOf(track_, *b);
    });
    return some;
  }

  /// Shorter lines turn to the direction of the longest that is near theirs, or square to it.
  void makeParallel() {
    std::vector<double> directions;
    for (split::TrackPiece* piece : longestFirst(true)) {
      const double angle = angleOf(*piece);
      const auto near = std::find_if(directions.begin(), directions.end(),
                                     [angle](double d) { return std::abs(offQuarter(angle - d)) < kMostTurnRadians; });
      if (near == directions.end()) {
        directions.push_back(angle);
        continue;
      }
      fit::Primitive turned = piece->primitive;
      turn(turned, -offQuarter(angle - *near));
      take(*piece, turned);
    }
  }

  Point middleOf(const split::TrackPiece& piece) const {
    return fit::project(piece.primitive,
                        track_.point(track_.indexAt((track_.arcLength(piece.from) + track_.arcLength(piece.to)) / 2)));
  }

  /// The same arc with another radius: its middle stays.
  fit::Primitive withRadius(const split::TrackPiece& piece, double radius) const {
    fit::Primitive p = piece.primitive;
    const Point middle = middleOf(piece);
    p.place = middle + (p.place - middle) * (radius / std::abs(p.radius));
    p.radius = std::copysign(radius, p.radius);
    return p;
  }

  void makeRadiiEqual() {
    std::vector<double> radii;
    for (split::TrackPiece* piece : longestFirst(false)) {
      const double radius = std::abs(piece->primitive.radius);
      const auto near = std::find_if(radii.begin(), radii.end(),
                                     [radius](double r) { return std::abs(radius - r) < kRadiusShare * r; });
      if (near == radii.end()) {
        radii.push_back(radius);
      } else {
        take(*piece, withRadius(*piece, *near));
      }
    }
  }

  /// How far a circle is from touching its neighbour, px.
  static double gapTo(const fit::Primitive& circle, const fit::Primitive& other) {
    if (other.kind == fit::Primitive::Kind::Line) {
      return std::abs(dot(circle.place - other.place, leftNormal(other.direction)) - circle.radius);
    }
    return std::abs(distance(circle.place, other.place) - std::abs(circle.radius - other.radius));
  }

  /// Whether an arc goes over smoothly into its neighbour: the circles or lines hardly fail to touch,
  /// and where they were split they turn by no more than a vague place for it explains.
  bool smooth(const split::TrackPiece& arc, const split::TrackPiece& neighbour, std::size_t at) const {
    const Point p = track_.point(at);
    const double turn =
        std::abs(angleBetween(fit::tangentAt(arc.primitive, p), fit::tangentAt(neighbour.primitive, p)));
    return turn < kSmooth && gapTo(arc.primitive, neighbour.primitive) < tolerance_;
  }

  void makeTangent() {
    const std::size_t n = pieces_.size();
    for (std::size_t k = 0; k < n && n > 2; ++k) {
      split::TrackPiece& piece = pieces_[k];
      if (isLine(piece.primitive)) continue;
      const split::TrackPiece& before = pieces_[(k + n - 1) % n];
      const split::TrackPiece& after = pieces_[(k + 1) % n];
      const bool open = !track_.closed();
      const bool atStart = !(open && k == 0) && smooth(piece, before, piece.from);
      const bool atEnd = !(open && k + 1 == n) && smooth(piece, after, piece.to);
      std::optional<fit::Primitive> touching;
      if (atStart && atEnd && isLine(before.primitive) && isLine(after.primitive)) {
        touching = betweenLines(piece.primitive, before.primitive, after.primitive);
      } else if (atStart && (isLine(before.primitive) || !atEnd || !isLine(after.primitive))) {
        touching = touchingOne(piece.primitive, before.primitive);
      } else if (atEnd && isLine(after.primitive)) {
        touching = touchingOne(piece.primitive, after.primitive);
      }
      if (touching) take(piece, *touching);
    }
  }

  /// The circle of this radius that touches both lines; between parallel ones half their distance.
  static std::optional<fit::Primitive> betweenLines(const fit::Primitive& circle, const fit::Primitive& a,
                                                    const fit::Primitive& b) {
    fit::Primitive touching = circle;
    const Point across = leftNormal(a.direction);
    const double bend = cross(a.direction, b.direction);
    if (std::abs(bend) < 1e-3) {
      const double gap = dot(b.place - a.place, across);
      if (dot(a.direction, b.direction) > 0 || gap * circle.radius <= 0) return std::nullopt;
      touching.radius = gap / 2;
      touching.place = fit::project(a, circle.place) + across * touching.radius;
      return touching;
    }
    // Both lines moved by the radius to the side where the centre lies.
    const Point onA = a.place + across * circle.radius;
    const Point onB = b.place + leftNormal(b.direction) * circle.radius;
    touching.place = onA + a.direction * (cross(onB - onA, b.direction) / bend);
    return touching;
  }

  /// The circle moved until it touches its neighbour.
  static std::optional<fit::Primitive> touchingOne(const fit::Primitive& circle, const fit::Primitive& other) {
    fit::Primitive touching = circle;
    if (other.kind == fit::Primitive::Kind::Line) {
      touching.place = fit::project(other, circle.place) + leftNormal(other.direction) * circle.radius;
      return touching;
    }
    const Point axis = circle.place - other.place;
    if (length(axis) < 1e-6) return std::nullopt;
    touching.place = other.place + unit(axis) * std::abs(circle.radius - other.radius);
    return touching;
  }

  const split::Track& track_;
  std::vector<split::TrackPiece> pieces_;
  double tolerance_;
};

struct Circle {
  std::size_t outline = 0;
  Point centre;
  double radius = 0;
  double sign = 1;
};

std::optional<Circle> circleOf(const Path& path, std::size_t outline) {
  constexpr double kHalf = 1e-9;
  if (!path.closed || path.segments.size() != 2) return std::nullopt;
  for (const Segment& s : path.segments) {
    if (s.kind != SegmentKind::Arc || std::abs(std::abs(s.bulge) - 1) > kHalf) return std::nullopt;
  }
  return Circle{outline, lerp(path.start, path.segments[0].end, 0.5), distance(path.start, path.segments[0].end) / 2,
                path.segments[0].bulge > 0 ? 1.0 : -1.0};
}

/// Centres that circles may share: finds the first one near in no more time when there are many of them.
class Centres {
 public:
  explicit Centres(double near) : near_(near) {}

  /// The first of those that were added whose distance is below `near`.
  std::optional<Point> firstNear(Point p) const {
    const Cell cell = cellOf(p);
    std::optional<std::size_t> first;
    for (double x = cell.first - 1; x <= cell.first + 1; ++x) {
      for (double y = cell.second - 1; y <= cell.second + 1; ++y) {
        const auto found = cells_.find({x, y});
        if (found == cells_.end()) continue;
        for (const std::size_t i : found->second) {
          if (distance(centres_[i], p) < near_ && (!first || i < *first)) first = i;
        }
      }
    }
    return first ? std::optional(centres_[*first]) : std::nullopt;
  }
  void add(Point p) {
    cells_[cellOf(p)].push_back(centres_.size());
    centres_.push_back(p);
  }

 private:
  using Cell = std::pair<double, double>;
  Cell cellOf(Point p) const { return {std::floor(p.x / near_), std::floor(p.y / near_)}; }

  double near_;
  std::vector<Point> centres_;
  std::map<Cell, std::vector<std::size_t>> cells_;
};

constexpr std::pair<const char*, bool Rules::*> kNames[] = {{"level", &Rules::level},
                                                            {"parallel", &Rules::parallel},
                                                            {"radii", &Rules::equalRadii},
                                                            {"concentric", &Rules::concentric},
                                                            {"tangent", &Rules::tangent}};

}  // namespace

std::vector<std::string> namesOf(const Rules& rules) {
  std::vector<std::string> names;
  for (const auto& [name, rule] : kNames) {
    if (rules.*rule) names.emplace_back(name);
  }
  return names;
}

Rules rulesNamed(const std::vector<std::string>& names) {
  Rules rules{false, false, false, false, false};
  for (const std::string& wanted : names) {
    const auto found =
        std::find_if(std::begin(kNames), std::end(kNames), [&](const auto& n) { return wanted == n.first; });
    if (found == std::end(kNames)) {
      throw InputError("\"" + wanted + "\" is no rule. Use level, parallel, radii, concentric or tangent.");
    }
    rules.*(found->second) = true;
  }
  return rules;
}

std::vector<split::TrackPiece> madeRegular(const split::Track& track, std::vector<split::TrackPiece> pieces,
                                           const Rules& rules, double tolerancePx) {
  return Regular(track, std::move(pieces), tolerancePx).made(rules);
}

void makeCirclesRegular(std::vector<Path>& outlines, const Rules& rules, double tolerancePx) {
  const double near = tolerancePx / 4;
  std::vector<Circle> circles;
  for (std::size_t i = 0; i < outlines.size(); ++i) {
    if (const auto circle = circleOf(outlines[i], i)) circles.push_back(*circle);
  }
  // The largest are known best; the others follow them.
  std::stable_sort(circles.begin(), circles.end(),
                   [](const Circle& a, const Circle& b) { return a.radius > b.radius; });
  std::optional<double> radius;  // the last one that differs from those before: none larger can be near
  Centres centres(near);
  for (Circle& c : circles) {
    if (!radius || std::abs(*radius - c.radius) >= near) radius = c.radius;
    if (rules.equalRadii) c.radius = *radius;
    const auto about = centres.firstNear(c.centre);
    if (rules.concentric && about) c.centre = *about;
    if (!about) centres.add(c.centre);
    const Point right{c.radius, 0};
    outlines[c.outline] = {
        c.centre + right, {Segment::arc(c.centre - right, c.sign), Segment::arc(c.centre + right, c.sign)}, true};
  }
}

}  // namespace rim::trace::outline
