#include "core/trace/smoothness.h"

#include "core/drawing/drawing.h"

namespace rim::trace {

std::vector<NodesAt> nodesAlongSmoothness(const picture::Picture& picture, const TraceSettings& settings,
                                          std::stop_token stop) {
  constexpr double kTolerances[] = {0.1, 0.2, 0.35, 0.6, 1, 1.8, 3, 5.5, 10};
  std::vector<NodesAt> along;
  TraceSettings at = settings;
  for (const double px : kTolerances) {
    at.tolerancePx = px;
    along.push_back({px, countsOf(trace(picture, at, {stop, {}}).outlines).nodes});
  }
  return along;
}

}  // namespace rim::trace
