#include "core/trace/lines/split_by_width.h"

#include <algorithm>

namespace rim::trace::lines {
namespace {

/// Points from `first` to `end` - 1 are all wider than the limit, or none.
struct WidthRun {
  std::size_t first = 0;
  std::size_t end = 0;
  bool wide = false;
};

double lengthOfRun(const std::vector<CentrePoint>& points, const WidthRun& run) {
  double sum = 0;
  for (std::size_t i = run.first + 1; i < run.end; ++i) sum += distance(points[i - 1].place, points[i].place);
  return sum;
}

/// Runs along a chain; those that are wide for less than half the limit count as narrow.
std::vector<WidthRun> runsOf(const std::vector<CentrePoint>& points, double limitPx) {
  std::vector<WidthRun> runs;
  const auto isWide = [&](std::size_t i) { return 2 * points[i].halfWidth > limitPx; };
  for (std::size_t i = 0; i < points.size();) {
    WidthRun run{i, i, isWide(i)};
    while (run.end < points.size() && isWide(run.end) == run.wide) ++run.end;
    i = run.end;
    if (run.wide && lengthOfRun(points, run) < limitPx / 2) run.wide = false;
    if (!runs.empty() && runs.back().wide == run.wide)
      runs.back().end = run.end;
    else
      runs.push_back(run);
  }
  return runs;
}

/// Ends of the piece before a cut and of the one behind it.
ChainEnd cutAt(StrokeGraph& graph, const CentrePoint& point) {
  graph.junctions.push_back({point.place, point.halfWidth, {}});
  return {graph.junctions.size() - 1, point.halfWidth};
}

void addPieces(StrokeGraph& graph, StrokeChain chain, double limitPx) {
  std::vector<WidthRun> runs = runsOf(chain.points, limitPx);
  if (runs.size() < 2) {
    graph.chains.push_back(std::move(chain));
    return;
  }
  if (chain.closed) {
    // A ring is opened where it first changes; its last piece goes over its start.
    const auto turn = static_cast<std::ptrdiff_t>(runs.front().end);
    std::rotate(chain.points.begin(), chain.points.begin() + turn, chain.points.end());
    chain.points.push_back(chain.points.front());
    const ChainEnd seam = cutAt(graph, chain.points.front());
    chain.closed = false;
    chain.ends = {seam, seam};
    runs = runsOf(chain.points, limitPx);
  }
  ChainEnd start = chain.ends[0];
  for (std::size_t r = 0; r < runs.size(); ++r) {
    // The points next to a cut belong to both pieces, so that none is empty.
    const std::size_t end = r + 1 < runs.size() ? runs[r].end + 1 : runs[r].end;
    const ChainEnd last = r + 1 < runs.size() ? cutAt(graph, chain.points[runs[r].end]) : chain.ends[1];
    StrokeChain piece;
    piece.points.assign(chain.points.begin() + static_cast<std::ptrdiff_t>(runs[r].first),
                        chain.points.begin() + static_cast<std::ptrdiff_t>(end));
    piece.ends = {start, last};
    if (piece.points.size() > 1) graph.chains.push_back(std::move(piece));
    start = last;
  }
}

}  // namespace

StrokeGraph splitByWidth(StrokeGraph graph, double limitPx) {
  std::vector<StrokeChain> whole = std::move(graph.chains);
  graph.chains.clear();
  for (StrokeChain& chain : whole) addPieces(graph, std::move(chain), limitPx);
  return graph;
}

}  // namespace rim::trace::lines
