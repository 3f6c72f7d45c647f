#include "core/trace/inks/short_borders.h"

#include <algorithm>

#include "core/trace/fit/primitive.h"
#include "core/trace/inks/crack_edges.h"
#include "core/trace/inks/meeting_lines.h"

namespace rim::trace::inks {
namespace {

constexpr std::size_t kSurelyNoneSides = 2;
constexpr std::size_t kMaybeNoneSides = 5;
/// What lies nearer to a junction is a mixture of three inks.
constexpr double kJunctionPx = 2;
/// Directions are taken up to here.
constexpr std::size_t kSidesOfRay = 12;
constexpr double kMeetPx = 0.75;

bool isShort(const CrackChain& chain) {
  return chain.left != kOutside && chain.right != kOutside && chain.start >= 0 &&
         chain.corners.size() - 1 <= kMaybeNoneSides;
}

class Meetings {
 public:
  Meetings(const CrackGraph& graph, const cv::Mat& bgr, const colour::InkMap& map)
      : graph_(graph), bgr_(bgr), map_(map), at_(graph.nodes.size()) {
    for (std::size_t i = 0; i < graph.chains.size(); ++i) {
      const CrackChain& chain = graph.chains[i];
      if (chain.start < 0) continue;
      at_[static_cast<std::size_t>(chain.start)].push_back(i);
      if (chain.end != chain.start) at_[static_cast<std::size_t>(chain.end)].push_back(i);
    }
  }

  /// Whether all borders that end where the chain does meet in one place, as far as they show where they lead.
  bool areOneRound(const CrackChain& chain) const {
    std::vector<MeetingLine> lines;
    for (const int node : {chain.start, chain.end}) {
      for (const std::size_t i : at_[static_cast<std::size_t>(node)]) {
        const CrackChain& other = graph_.chains[i];
        if (&other == &chain || isShort(other)) continue;
        if (const auto line = lineOut(other, node)) lines.push_back(*line);
      }
    }
    return lines.size() < 3 || meet(lines);
  }

 private:
  /// The line along which a border leaves a node.
  std::optional<MeetingLine> lineOut(const CrackChain& chain, int node) const {
    const auto count = static_cast<std::ptrdiff_t>(std::min(chain.corners.size(), kSidesOfRay + 1));
    CrackChain first{{chain.corners.begin(), chain.corners.begin() + count}, chain.left, chain.right, -1, -1};
    if (chain.start != node) {
      first.corners.assign(chain.corners.rbegin(), chain.corners.rbegin() + count);
      std::swap(first.left, first.right);
    }
    const Point from{static_cast<double>(first.corners.front().x),
                     static_cast<double>(bgr_.rows - first.corners.front().y)};
    std::vector<Point> points = edgesAlong(first, bgr_, map_);
    std::erase_if(points, [from](Point p) { return distance(p, from) < kJunctionPx; });
    if (points.size() < 3 || distance(points.front(), points.back()) < 1) return std::nullopt;
    const fit::Primitive line = fit::fitLine(points);
    return MeetingLine{line.place, line.direction};
  }

  static bool meet(const std::vector<MeetingLine>& lines) {
    LineMeeting meeting;
    for (const MeetingLine& line : lines) meeting.add(line, 1);
    const auto place = meeting.place();
    return !place || std::all_of(lines.begin(), lines.end(),
                                 [place](const MeetingLine& line) { return offFrom(line, *place) <= kMeetPx; });
  }

  const CrackGraph& graph_;
  const cv::Mat& bgr_;
  const colour::InkMap& map_;
  std::vector<std::vector<std::size_t>> at_;  ///< chains that end at each node
};

}  // namespace

std::vector<bool> bordersThatAreNone(const CrackGraph& graph, const cv::Mat& bgr, const colour::InkMap& map) {
  const Meetings meetings(graph, bgr, map);
  std::vector<bool> none;
  none.reserve(graph.chains.size());
  for (const CrackChain& chain : graph.chains)
    none.push_back(isShort(chain) && (chain.corners.size() - 1 <= kSurelyNoneSides || meetings.areOneRound(chain)));
  return none;
}

}  // namespace rim::trace::inks
