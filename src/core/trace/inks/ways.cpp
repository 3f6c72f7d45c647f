#include "core/trace/inks/ways.h"

#include <algorithm>
#include <limits>
#include <optional>

#include "core/disjoint_sets.h"
#include "core/for_all.h"
#include "core/trace/contour/roughness.h"
#include "core/trace/contour/without_jags.h"
#include "core/trace/fit/primitive.h"
#include "core/trace/inks/crack_edges.h"
#include "core/trace/inks/pair_ends.h"
#include "core/trace/inks/short_borders.h"

namespace rim::trace::inks {
namespace {

/// What lies so near to a junction is a mixture of three inks.
constexpr double kTrimPx = 1.6;
/// Directions at a junction are taken up to here.
constexpr double kDirectionPx = 9;
/// And so far from it what has a third ink beside it.
constexpr double kThirdInkPx = 4;
/// Junctions are kept apart so far round a place.
constexpr double kKeptApartPx = 12;

class Maker {
 public:
  Maker(const CrackGraph& graph, const cv::Mat& bgr, const colour::InkMap& map, const LoneInks& lone,
        std::span<const Point> keptApart)
      : graph_(graph), bgr_(bgr), map_(map), lone_(lone), keptApart_(keptApart) {}

  Ways made(const std::stop_token& stop) {
    joinNodes();
    measureBorders(stop);
    pairs_ = pairedEnds(ways_.junctions, ways_.borders, lone_);
    follow();
    for (std::size_t e = 0; e < pairs_.bent.size(); ++e) {
      if (pairs_.bent[e]) ways_.junctions[static_cast<std::size_t>(junctionAt(e))].bent = true;
    }
    return std::move(ways_);
  }

 private:
  static bool onRim(const CrackChain& chain) { return chain.left == kOutside || chain.right == kOutside; }

  bool isDropped(const CrackChain& chain) const {
    return dropped_[static_cast<std::size_t>(&chain - graph_.chains.data())];
  }

  void joinNodes() {
    const std::vector<bool> none = bordersThatAreNone(graph_, bgr_, map_);
    DisjointSets same(graph_.nodes.size());
    dropped_.assign(graph_.chains.size(), false);
    for (std::size_t i = 0; i < graph_.chains.size(); ++i) {
      const CrackChain& chain = graph_.chains[i];
      if (!none[i]) continue;
      const auto a = static_cast<std::size_t>(chain.start);
      const auto b = static_cast<std::size_t>(chain.end);
      if ((isRimNode(a) && isRimNode(b)) || isKeptApart(chain)) continue;
      if (same.of(a) == same.of(b)) continue;
      same.join(a, b);
      dropped_[i] = true;
    }
    junctionOf_.resize(graph_.nodes.size());
    std::vector<int> number(graph_.nodes.size(), -1);
    std::vector<double> count;
    for (std::size_t i = 0; i < graph_.nodes.size(); ++i) {
      int& own = number[same.of(i)];
      if (own < 0) {
        own = static_cast<int>(ways_.junctions.size());
        ways_.junctions.emplace_back();
        count.push_back(0);
      }
      junctionOf_[i] = own;
      const auto at = static_cast<std::size_t>(own);
      Junction& junction = ways_.junctions[at];
      junction.place = junction.place + upright(graph_.nodes[i]);
      junction.fixed = junction.fixed || isPictureCorner(i);
      count[at] += 1;
    }
    for (std::size_t i = 0; i < count.size(); ++i) ways_.junctions[i].place = ways_.junctions[i].place * (1 / count[i]);
  }

  bool isKeptApart(const CrackChain& chain) const {
    const Point middle = upright(chain.corners[chain.corners.size() / 2]);
    return std::any_of(keptApart_.begin(), keptApart_.end(),
                       [middle](Point p) { return distance(p, middle) < kKeptApartPx; });
  }

  bool isRimNode(std::size_t i) const {
    const cv::Point p = graph_.nodes[i];
    return p.x == 0 || p.y == 0 || p.x == bgr_.cols || p.y == bgr_.rows;
  }
  bool isPictureCorner(std::size_t i) const {
    const cv::Point p = graph_.nodes[i];
    return (p.x == 0 || p.x == bgr_.cols) && (p.y == 0 || p.y == bgr_.rows);
  }

  Point upright(cv::Point corner) const {
    return {static_cast<double>(corner.x), static_cast<double>(bgr_.rows - corner.y)};
  }

  void measureBorders(const std::stop_token& stop) {
    std::vector<const CrackChain*> kept;
    for (const CrackChain& chain : graph_.chains) {
      if (!isDropped(chain)) kept.push_back(&chain);
    }
    ways_.borders.resize(kept.size());
    std::vector<contour::Border> measured(kept.size());
    forAll(kept.size(), {stop, {}}, [&](std::size_t i) {
      ways_.borders[i] = sidesAlong(*kept[i]);
      measured[i] = edgesAlong(*kept[i], bgr_, map_);
    });
    // How far the grain of the picture moves borders is not known.
    const std::vector<contour::Roughness> rough =
        contour::roughnessOf(contour::stretchesOf(measured), measured.size(), std::numeric_limits<double>::infinity());
    forAll(kept.size(), {stop, {}}, [&](std::size_t i) {
      InkBorder& border = ways_.borders[i];
      border.jagged = rough[i].jagged && !onRim(*kept[i]);
      border.points = std::move(measured[i]);
      if (border.jagged)
        border.points = border.start < 0 ? contour::withoutJags(border.sides) : contour::withoutJagsOpen(border.sides);
      finish(border, *kept[i]);
    });
  }

  InkBorder sidesAlong(const CrackChain& chain) const {
    InkBorder border;
    border.left = chain.left;
    border.right = chain.right;
    border.sides.reserve(chain.corners.size());
    for (std::size_t i = 0; i + 1 < chain.corners.size(); ++i)
      border.sides.push_back(lerp(upright(chain.corners[i]), upright(chain.corners[i + 1]), 0.5));
    if (chain.start >= 0) {
      border.start = junctionOf_[static_cast<std::size_t>(chain.start)];
      border.end = junctionOf_[static_cast<std::size_t>(chain.end)];
    }
    return border;
  }

  void finish(InkBorder& border, const CrackChain& chain) const {
    if (chain.start >= 0) {
      trim(border, chain);
    } else if (border.points.size() < 3) {
      border.points.clear();
      for (std::size_t i = 0; i + 1 < chain.corners.size(); ++i) border.points.push_back(upright(chain.corners[i]));
    }
  }

  /// Leaves out what is too near to the junctions, and finds the directions there.
  void trim(InkBorder& border, const CrackChain& chain) const {
    const Point a = upright(chain.corners.front());
    const Point b = upright(chain.corners.back());
    std::vector<Point>& points = border.points;
    const bool rim = onRim(chain);
    const double most = rim ? 0 : std::min(kTrimPx, static_cast<double>(chain.corners.size() - 1) / 6);
    const double thirdInkReach =
        std::clamp(static_cast<double>(chain.corners.size()) / 5, kThirdInkPx, 3 * kThirdInkPx);
    const auto near = [&, most](Point p) {
      const double off = std::min(distance(p, a), distance(p, b));
      return off < most || (!rim && off < thirdInkReach && hasThirdInk(p, chain));
    };
    std::vector<Point> kept;
    std::copy_if(points.begin(), points.end(), std::back_inserter(kept), [&near](Point p) { return !near(p); });
    if (kept.size() >= 4 || (!kept.empty() && most < kTrimPx)) points = std::move(kept);
    if (points.empty()) points = {lerp(a, b, 0.5)};
    border.leaves = direction(points, a, b);
    std::vector<Point> back(points.rbegin(), points.rend());
    border.arrives = -direction(back, b, a);
  }

  /// Whether a pixel beside the place has another ink than the two of the border.
  bool hasThirdInk(Point p, const CrackChain& chain) const {
    const cv::Mat& labels = *map_.labels;
    const int x = static_cast<int>(std::lround(p.x));
    const int y = static_cast<int>(std::lround(bgr_.rows - p.y));
    for (int row = std::max(0, y - 2); row < std::min(labels.rows, y + 2); ++row) {
      for (int column = std::max(0, x - 2); column < std::min(labels.cols, x + 2); ++column) {
        const std::uint8_t label = labels.at<std::uint8_t>(row, column);
        if (label != chain.left && label != chain.right) return true;
      }
    }
    return false;
  }

  /// The direction out of a junction along the first points.
  static Point direction(const std::vector<Point>& points, Point from, Point to) {
    std::vector<Point> first;
    for (const Point p : points) {
      if (distance(p, points.front()) > kDirectionPx) break;
      first.push_back(p);
    }
    if (first.size() < 3 || distance(first.front(), first.back()) < 1) {
      const Point far = points.size() > 1 ? points[points.size() / 2] : to;
      return unit(distance(far, from) > 0.5 ? far - from : to - from);
    }
    // A curve's direction at its beginning: the circle's, where one follows the points.
    const auto circle = first.size() >= 6 ? fit::fitCircle(first) : std::nullopt;
    const fit::Primitive primitive = circle && std::abs(circle->radius) > kDirectionPx ? *circle : fit::fitLine(first);
    return fit::tangentAt(primitive, first.front());
  }

  int junctionAt(std::size_t end) const {
    const InkBorder& border = ways_.borders[end / 2];
    return end % 2 == 0 ? border.start : border.end;
  }

  /// Borders one after the other as their ends are paired.
  void follow() {
    std::vector<bool> used(ways_.borders.size(), false);
    const auto from = [&](std::size_t border, bool reversed) {
      Way way;
      way.onRim = ways_.borders[border].left == kOutside || ways_.borders[border].right == kOutside;
      while (!used[border]) {
        used[border] = true;
        way.parts.push_back({border, reversed});
        const std::size_t next = pairs_.partner[2 * border + (reversed ? 0 : 1)];
        if (next == EndPairs::kNone) {
          ways_.ways.push_back(way);
          return;
        }
        border = next / 2;
        reversed = next % 2 == 1;
      }
      way.closed = true;
      ways_.ways.push_back(way);
    };
    for (std::size_t i = 0; i < used.size(); ++i) {
      if (used[i] || ways_.borders[i].start < 0) continue;
      if (pairs_.partner[2 * i] == EndPairs::kNone)
        from(i, false);
      else if (pairs_.partner[2 * i + 1] == EndPairs::kNone)
        from(i, true);
    }
    for (std::size_t i = 0; i < used.size(); ++i) {
      if (!used[i]) from(i, false);
    }
    for (Way& way : ways_.ways) {
      if (ways_.borders[way.parts.front().border].start < 0) way.closed = true;
    }
  }

  const CrackGraph& graph_;
  const cv::Mat& bgr_;
  const colour::InkMap& map_;
  const LoneInks& lone_;
  std::span<const Point> keptApart_;
  Ways ways_;
  std::vector<bool> dropped_;
  std::vector<int> junctionOf_;
  EndPairs pairs_;
};

}  // namespace

std::vector<InkBeside> inksBesideAllOf(const Way& way, const std::vector<InkBorder>& borders) {
  std::vector<InkBeside> beside;
  for (const bool atLeft : {true, false}) {
    std::optional<std::uint8_t> same;
    bool all = true;
    for (const Way::Part& part : way.parts) {
      const InkBorder& border = borders[part.border];
      const std::uint8_t ink = atLeft != part.reversed ? border.left : border.right;
      all = all && ink != kOutside && (!same || *same == ink);
      same = ink;
    }
    if (all) beside.push_back({*same, atLeft});
  }
  return beside;
}

Ways waysOf(const CrackGraph& graph, const cv::Mat& bgr, const colour::InkMap& map, const LoneInks& lone,
            std::span<const Point> keptApart, const std::stop_token& stop) {
  return Maker(graph, bgr, map, lone, keptApart).made(stop);
}

}  // namespace rim::trace::inks
