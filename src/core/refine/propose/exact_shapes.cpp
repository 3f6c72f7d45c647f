#include "core/refine/propose/exact_shapes.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <functional>
#include <numbers>

#include "core/geometry/circle.h"
#include "core/geometry/path_place.h"
#include "core/geometry/segment.h"
#include "core/refine/edit/shapes.h"
#include "core/trace/fit/ellipse.h"
#include "core/trace/fit/primitive.h"

namespace rim::refine {
namespace {

using Places = std::vector<Point>;

double meanSquare(const Places& places, const Path& shape) {
  double sum = 0;
  for (const Point p : places) {
    const double off = nearestOn(shape, p).off;
    sum += off * off;
  }
  return sum / static_cast<double>(places.size());
}

Path turned(const Path& path, double angle) {
  Path out = path;
  const Point x{std::cos(angle), std::sin(angle)};
  const auto turn = [x](Point p) { return Point{p.x * x.x - p.y * x.y, p.x * x.y + p.y * x.x}; };
  out.start = turn(path.start);
  for (Segment& s : out.segments) {
    s.end = turn(s.end);
    s.handle1 = turn(s.handle1);
    s.handle2 = turn(s.handle2);
  }
  return out;
}

/// A turn about the origin.
class Turn {
 public:
  explicit Turn(double angle) : cos_(std::cos(angle)), sin_(std::sin(angle)) {}
  Point operator()(Point p) const { return {p.x * cos_ - p.y * sin_, p.x * sin_ + p.y * cos_}; }

 private:
  double cos_;
  double sin_;
};

Point turned(Point p, double angle) { return Turn(angle)(p); }

/// Centre and radius with the least squared distances, from a good start (Gauss and Newton).
std::optional<CircleOf> fittedCircle(const Places& places) {
  const auto first = trace::fit::fitCircle(places);
  if (!first || first->kind != trace::fit::Primitive::Kind::Circle) return {};
  CircleOf c{first->place, std::abs(first->radius)};
  constexpr int kRounds = 5;
  for (int round = 0; round < kRounds; ++round) {
    // For places evenly round it the equations part: the centre moves by twice the mean of distance times direction.
    Point shift;
    double mean = 0;
    for (const Point p : places) {
      const double off = distance(p, c.centre) - c.radius;
      shift = shift + unit(p - c.centre) * off;
      mean += off;
    }
    const auto n = static_cast<double>(places.size());
    c.centre = c.centre + shift * (2 / n);
    c.radius += mean / n;
  }
  return c;
}

/// Whether what lies off a circle is an oval or an egg and nothing else: nine tenths of it in two or three waves round
/// it, as nobody's hand wavers.
bool isOvalOnPurpose(const Places& places, const CircleOf& circle) {
  double all = 0;
  std::array<Point, 2> waves{};
  for (const Point p : places) {
    const Point arm = p - circle.centre;
    const double off = length(arm) - circle.radius;
    const double angle = std::atan2(arm.y, arm.x);
    all += off * off;
    for (std::size_t w = 0; w < waves.size(); ++w) {
      const double turn = static_cast<double>(w + 2) * angle;
      waves[w] = waves[w] + Point{std::cos(turn), std::sin(turn)} * off;
    }
  }
  const auto n = static_cast<double>(places.size());
  double few = 0;
  for (const Point wave : waves) few += 2 * dot(wave, wave) / n;
  constexpr double kMost = 0.9;
  constexpr double kSeen = 0.003;  // of the radius, root mean square
  return few > kMost * all && all / n > kSeen * kSeen * circle.radius * circle.radius;
}

/// A box at an angle, perhaps with round corners.
struct TurnedBox {
  double angle = 0;
  Box box;  ///< in the frame that is turned back by the angle
};

/// The direction that most of the outline runs along, modulo a quarter turn.
double mainAngle(const Places& places) {
  double x = 0;
  double y = 0;
  for (std::size_t i = 0; i < places.size(); ++i) {
    const Point way = places[(i + 1) % places.size()] - places[i];
    const double four = 4 * std::atan2(way.y, way.x);
    x += length(way) * std::cos(four);
    y += length(way) * std::sin(four);
  }
  return std::atan2(y, x) / 4;
}

/// Four sides through the places nearest to them, `corner` of each side left out at both ends.
TurnedBox fittedBox(const Places& places, double corner) {
  TurnedBox fit{mainAngle(places), {}};
  constexpr int kRounds = 12;
  for (int round = 0; round < kRounds; ++round) {
    Places upright;
    upright.reserve(places.size());
    const Turn back(-fit.angle);
    for (const Point p : places) upright.push_back(back(p));
    if (round == 0) {
      for (const Point p : upright) fit.box.include(p);
    }
    const Box box = fit.box;
    std::array<double, 4> sum{}, count{}, from{}, slope{}, spread{};
    const Point middle = lerp(box.low, box.high, 0.5);
    for (const Point p : upright) {
      const std::array<double, 4> off{std::abs(p.x - box.low.x), std::abs(p.x - box.high.x), std::abs(p.y - box.low.y),
                                      std::abs(p.y - box.high.y)};
      const auto side = static_cast<std::size_t>(std::min_element(off.begin(), off.end()) - off.begin());
      const bool upwards = side < 2;
      const double along = upwards ? p.y : p.x;
      const double low = upwards ? box.low.y : box.low.x;
      const double high = upwards ? box.high.y : box.high.x;
      if (along < low + corner || along > high - corner) continue;
      const double across = upwards ? p.x : p.y;
      const double place = along - (upwards ? middle.y : middle.x);
      sum[side] += across;
      count[side] += 1;
      from[side] += place;
      slope[side] += place * across;
      spread[side] += place * place;
    }
    for (std::size_t side = 0; side < 4; ++side) {
      if (count[side] < 2) return fit;
    }
    fit.box.low = {sum[0] / count[0], sum[2] / count[2]};
    fit.box.high = {sum[1] / count[1], sum[3] / count[3]};
    double turn = 0;
    double weight = 0;
    for (std::size_t side = 0; side < 4; ++side) {
      turn += (side < 2 ? -1 : 1) * (slope[side] - from[side] * sum[side] / count[side]);
      weight += spread[side] - from[side] * from[side] / count[side];
    }
    const double old = fit.angle;
    fit.angle += weight > 0 ? turn / weight : 0;
    // The box is of the old frame; its middle turns with it.
    const Point moved =
        turned(turned(lerp(fit.box.low, fit.box.high, 0.5), old), -fit.angle) - lerp(fit.box.low, fit.box.high, 0.5);
    fit.box.low = fit.box.low + moved;
    fit.box.high = fit.box.high + moved;
  }
  return fit;
}

/// The box with round corners; with a radius of 0 a rectangle.
Path roundedPath(const TurnedBox& fit, double r) { return turned(refine::roundedBox(fit.box, r), fit.angle); }

/// The radius of four round corners, by how far the corners of the box lie from the outline.
double cornerRadius(const TurnedBox& fit, const Path& path) {
  const double share = std::numbers::sqrt2 - 1;
  double sum = 0;
  for (const Point corner :
       {fit.box.low, fit.box.high, Point{fit.box.low.x, fit.box.high.y}, Point{fit.box.high.x, fit.box.low.y}})
    sum += nearestOn(path, turned(corner, fit.angle)).off / share;
  return sum / 4;
}

/// A place as it is seen from a centre.
struct Arm {
  double length;
  double angle;  ///< radians
};

std::vector<Arm> armsOf(const Places& places, Point centre) {
  std::vector<Arm> arms;
  arms.reserve(places.size());
  for (const Point p : places) arms.push_back({length(p - centre), std::atan2(p.y - centre.y, p.x - centre.x)});
  return arms;
}

/// Whether such arms can be those of a regular polygon that lies within `room` of them: its corners lie farther out
/// than its sides by a ratio that hangs on their number alone. `step`: from one place to the next.
bool mayBePolygon(const std::vector<Arm>& arms, int n, double room, double step) {
  const auto [least, most] =
      std::minmax_element(arms.begin(), arms.end(), [](const Arm& a, const Arm& b) { return a.length < b.length; });
  const double ratio = 1 / std::cos(std::numbers::pi / n);
  // The centre may be off as well, and a corner lies up to half a step beside a place.
  constexpr double kSlack = 3;
  return std::abs(most->length - least->length * ratio) <= kSlack * (1 + ratio) * room + step;
}

/// A regular polygon with n corners, by the phase of the n-th wave of the distance from its centre.
Path polygonOf(const std::vector<Arm>& arms, Point centre, int n) {
  const double sector = 2 * std::numbers::pi / n;
  double x = 0;
  double y = 0;
  for (const Arm& arm : arms) {
    x += arm.length * std::cos(n * arm.angle);
    y += arm.length * std::sin(n * arm.angle);
  }
  double corner = std::atan2(y, x) / n;
  double apothem = 0;
  constexpr int kRounds = 8;
  for (int round = 0; round < kRounds; ++round) {
    double sum = 0;
    double turn = 0;
    double weight = 0;
    double count = 0;
    for (const Arm& arm : arms) {
      const double angle = arm.angle - corner;
      const double within = angle - std::floor(angle / sector) * sector - sector / 2;
      const double off = arm.length * std::cos(within);
      const double along = arm.length * std::sin(within);
      sum += off;
      count += 1;
      turn += along * (off - apothem);
      weight += along * along;
    }
    apothem = sum / count;
    if (round > 0 && weight > 0) corner -= turn / weight;
  }
  const double reach = apothem / std::cos(sector / 2);
  const auto at = [&](int i) {
    return centre + Point{std::cos(corner + i * sector), std::sin(corner + i * sector)} * reach;
  };
  std::vector<Point> corners;
  for (int i = 0; i < n; ++i) corners.push_back(at(i));
  return polygonThrough(corners);
}

Point centroidOf(const Places& places) {
  Point sum;
  for (const Point p : places) sum = sum + p;
  return sum * (1 / static_cast<double>(places.size()));
}

struct Candidate {
  TrueUpKind kind;
  Path path;
  double price;  ///< what more there is to choose must pay for itself
};

/// `roomFor`: how far a shape of a kind may lie from the path, mm.
std::vector<Candidate> candidatesFor(const Path& path, const Places& places, const std::set<TrueUpKind>& kinds,
                                     const std::function<double(TrueUpKind)>& roomFor) {
  std::vector<Candidate> all;
  const auto wanted = [&kinds](TrueUpKind kind) { return kinds.count(kind) != 0; };
  const auto circle = fittedCircle(places);
  if (wanted(TrueUpKind::Circle) && circle && !isOvalOnPurpose(places, *circle))
    all.push_back({TrueUpKind::Circle, circlePathOf(circle->centre, circle->radius, 1), 1});
  if (wanted(TrueUpKind::Rectangle)) all.push_back({TrueUpKind::Rectangle, roundedPath(fittedBox(places, 0), 0), 1.2});
  if (wanted(TrueUpKind::RoundedRectangle) || wanted(TrueUpKind::Slot)) {
    TurnedBox fit = fittedBox(places, 0);
    double r = cornerRadius(fit, path);
    for (int round = 0; round < 3; ++round) {
      fit = fittedBox(places, r);
      r = cornerRadius(fit, path);
    }
    const double half = std::min(fit.box.width(), fit.box.height()) / 2;
    constexpr double kNearlyHalf = 0.93;
    const bool slot = r > kNearlyHalf * half;
    if (slot && wanted(TrueUpKind::Slot)) all.push_back({TrueUpKind::Slot, roundedPath(fit, half), 1.3});
    if (!slot && r > 0 && wanted(TrueUpKind::RoundedRectangle))
      all.push_back({TrueUpKind::RoundedRectangle, roundedPath(fit, r), 1.4});
  }
  constexpr int kMostCorners = 12;
  const Point centre = centroidOf(places);
  const std::vector<Arm> arms = armsOf(places, centre);
  const double step = pathLength(path) / static_cast<double>(places.size());
  for (int n = 3; wanted(TrueUpKind::Polygon) && n <= kMostCorners; ++n) {
    if (n != 4 && mayBePolygon(arms, n, roomFor(TrueUpKind::Polygon), step))
      all.push_back({TrueUpKind::Polygon, polygonOf(arms, centre, n), 1.3});
  }
  if (wanted(TrueUpKind::Ellipse)) {
    constexpr double kTolerance = 1e-4;
    if (const auto ellipse = trace::fit::fitEllipse(places))
      all.push_back({TrueUpKind::Ellipse, trace::fit::pathOf(*ellipse, 1, kTolerance), 1.5});
  }
  return all;
}

/// How far a shape may lie from what is nearly it, in shares of its smaller side: the more there is to choose, the more
/// would fit by chance what was meant otherwise.
double shareOfSide(TrueUpKind kind) {
  switch (kind) {
    case TrueUpKind::Circle:
      return 1.0 / 60;
    case TrueUpKind::Rectangle:
      return 1.0 / 60;
    case TrueUpKind::Ellipse:
      return 1.0 / 120;
    default:
      return 1.0 / 100;
  }
}

/// Whether some of the places all lie within `room` of a shape: if not, there is no need to look at all.
bool mayLieOn(const Places& places, const Path& shape, double room) {
  constexpr std::size_t kEvery = 10;
  for (std::size_t i = 0; i < places.size(); i += kEvery)
    if (nearestOn(shape, places[i]).off > room) return false;
  return true;
}

}  // namespace

std::vector<Point> placesAlong(const Path& path, int count) {
  const double step = pathLength(path) / count;
  std::vector<Point> places;
  double next = step / 2;
  double walked = 0;
  for (std::size_t i = 0; i < path.segments.size(); ++i) {
    const Piece piece = pieceOf(path, i);
    const double size = lengthOf(piece);
    for (; next < walked + size; next += step) places.push_back(pointAt(piece, (next - walked) / size));
    walked += size;
  }
  return places;
}

Apart apartBy(const Path& a, const Path& b, int places) {
  Apart apart;
  const auto look = [&apart](const Path& from, const Path& to, int count) {
    Places all = placesAlong(from, count);
    for (std::size_t i = 0; i < from.segments.size(); ++i) all.push_back(from.segments[i].end);
    for (const Point p : all) {
      const PathPlace nearest = nearestOn(to, p);
      if (nearest.off > apart.mm) apart = {nearest.off, p};
    }
  };
  look(a, b, places);
  look(b, a, places);
  return apart;
}

std::optional<ExactShape> exactShapeOf(const Path& closed, const std::set<TrueUpKind>& kinds, double withinMm,
                                       std::size_t heldNodes) {
  constexpr int kPlaces = 240;
  if (!closed.closed || closed.segments.size() < 2) return {};
  const Box box = boxOf(closed);
  const double side = std::min(box.width(), box.height());
  if (!(side > 0)) return {};
  const Places places = placesAlong(closed, kPlaces);
  std::optional<ExactShape> best;
  double least = std::numeric_limits<double>::infinity();
  const auto roomFor = [&](TrueUpKind kind) { return std::min(withinMm, shareOfSide(kind) * side); };
  for (Candidate& candidate : candidatesFor(closed, places, kinds, roomFor)) {
    const double room = roomFor(candidate.kind);
    if (!mayLieOn(places, candidate.path, room)) continue;
    constexpr double kFloor = 1e-9;  // what is exact either way goes by its price
    const double score = (std::sqrt(meanSquare(places, candidate.path)) + kFloor) * candidate.price;
    if (score >= least) continue;
    const Apart apart = apartBy(closed, candidate.path, kPlaces);
    if (apart.mm > room) continue;
    least = score;
    Path path =
        (signedArea(candidate.path) > 0) == (signedArea(closed) > 0) ? candidate.path : reversed(candidate.path);
    best = ExactShape{candidate.kind, std::move(path), apart.mm, apart.at};
  }
  // It is one already when it has no segment more and nothing would move.
  constexpr double kExact = 1e-6;
  const bool already =
      best && best->movedMm < kExact && closed.segments.size() <= best->path.segments.size() + 2 + heldNodes;
  return already ? std::nullopt : best;
}

}  // namespace rim::refine
