#include "core/trace/inks/lone_inks.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <set>

#include "core/for_all.h"
#include "core/geometry/grown_box.h"
#include "core/geometry/path_place.h"
#include "core/geometry/segment.h"
#include "core/trace/contour/fine_borders.h"
#include "core/trace/inks/ink_shares.h"
#include "core/trace/outline/trace_outlines.h"

namespace rim::trace::inks {
namespace {

/// Artwork has fewer borders; a photo's are rough, and trying them all several times over would take seconds.
constexpr std::size_t kMostBorders = 1000;

/// Two inks, the smaller number first.
using InkPair = std::pair<std::uint8_t, std::uint8_t>;

InkPair pairOf(const CrackChain& chain) { return std::minmax(chain.left, chain.right); }

/// An ink to trace, and the pairs of inks whose borders it shows and none before it.
struct Task {
  std::uint8_t ink = 0;
  std::set<InkPair> pairs{};
};

/// Again and again the ink with most border that no other one shows yet.
std::vector<Task> tasksFor(const CrackGraph& graph) {
  std::map<InkPair, std::size_t> borders;
  for (const CrackChain& chain : graph.chains) {
    if (chain.left != kOutside && chain.right != kOutside) borders[pairOf(chain)] += chain.corners.size() - 1;
  }
  std::vector<Task> tasks;
  while (!borders.empty()) {
    std::map<std::uint8_t, std::size_t> lengths;
    for (const auto& [pair, length] : borders) {
      lengths[pair.first] += length;
      lengths[pair.second] += length;
    }
    const auto most = std::max_element(lengths.begin(), lengths.end(),
                                       [](const auto& a, const auto& b) { return a.second < b.second; });
    Task task{most->first};
    std::erase_if(borders, [&task](const auto& own) {
      const bool shown = own.first.first == task.ink || own.first.second == task.ink;
      if (shown) task.pairs.insert(own.first);
      return shown;
    });
    tasks.push_back(std::move(task));
  }
  return tasks;
}

/// The pixels beside the borders between these pairs of inks.
cv::Mat besideBorders(const CrackGraph& graph, const std::set<InkPair>& pairs, cv::Size size) {
  cv::Mat beside(size, CV_8U, cv::Scalar(0));
  const cv::Rect picture({}, size);
  for (const CrackChain& chain : graph.chains) {
    if (pairs.count(pairOf(chain)) == 0) continue;
    for (const cv::Point corner : chain.corners)
      beside(cv::Rect(corner - cv::Point(1, 1), cv::Size(2, 2)) & picture) = 255;
  }
  return beside;
}

/// Whether a border passes marked pixels.
bool passes(const contour::Border& border, const cv::Mat& marked) {
  return std::any_of(border.begin(), border.end(), [&marked](Point p) {
    const int x = std::clamp(static_cast<int>(std::floor(p.x)), 0, marked.cols - 1);
    const int y = std::clamp(static_cast<int>(std::floor(marked.rows - p.y)), 0, marked.rows - 1);
    return marked.at<std::uint8_t>(y, x) != 0;
  });
}

/// Whether an outline was left as the polygon that was measured, of places a part of a pixel apart: a fit of the border
/// is better than that.
bool isAsMeasured(const Path& outline) {
  constexpr std::size_t kMany = 50;
  constexpr double kUsualPx = 0.5;
  return outline.segments.size() > kMany &&
         pathLength(outline) < kUsualPx * static_cast<double>(outline.segments.size());
}

}  // namespace

std::vector<OutlineNode> nodesNear(const Path& outline, Point place) {
  constexpr double kRimReachPx = 2;
  std::vector<OutlineNode> nodes;
  for (std::size_t i = 0; i < outline.segments.size(); ++i) {
    const Piece before = pieceOf(outline, i);
    if (distance(before.segment.end, place) > kRimReachPx) continue;
    const Piece after = pieceOf(outline, (i + 1) % outline.segments.size());
    nodes.push_back({i, std::abs(angleBetween(tangentAt(before, 1), tangentAt(after, 0)))});
  }
  return nodes;
}

LoneInks::LoneInks(const CrackGraph& graph, const cv::Mat& bgr, const colour::InkMap& map,
                   const TraceSettings& settings, const WorkControl& control) {
  if (contour::finenessFor(bgr.size()) == 1 || graph.chains.size() > kMostBorders) return;
  const std::vector<Task> tasks = tasksFor(graph);
  for (const Task& task : tasks) inks_.push_back({task.ink});
  const InkShares shares(bgr, map);
  forAll(inks_.size(), control, [&](std::size_t k) {
    Ink& own = inks_[k];
    contour::Tones tones{shares.levelsOf(own.ink), {InkShares::kEvenShares, false}};
    const cv::Mat shown = besideBorders(graph, tasks[k].pairs, bgr.size());
    // Later rounds take as long as all else together and hardly move a border.
    const outline::FitScope scope{[&shown](const contour::Border& border) { return passes(border, shown); }, 1};
    own.outlines = outline::traceTones(std::move(tones), settings, {control.stop, {}}, scope).outlines;
    std::erase_if(own.outlines, isAsMeasured);
    for (const Path& outline : own.outlines) own.boxes.push_back(grown(boxOf(outline), kOffPx));
  });
}

bool LoneInks::isSmoothNear(std::uint8_t ink, Point place) const {
  constexpr double kCornerTurn = 0.2;
  const auto own = std::find_if(inks_.begin(), inks_.end(), [ink](const Ink& one) { return one.ink == ink; });
  if (own == inks_.end()) return false;
  bool any = false;
  for (std::size_t i = 0; i < own->outlines.size(); ++i) {
    if (!own->boxes[i].contains(place)) continue;
    const PathPlace near = nearestOn(own->outlines[i], place);
    if (near.off > kOffPx) continue;
    any = true;
    double turn = 0;
    for (const OutlineNode& node : nodesNear(own->outlines[i], near.place)) turn += node.turn;
    if (turn >= kCornerTurn) return false;
  }
  return any;
}

}  // namespace rim::trace::inks
