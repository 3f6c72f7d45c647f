#include "core/io/report.h"

#include <nlohmann/json.hpp>

namespace rim {

std::string reportJson(const Drawing& drawing, const std::string& source, double seconds,
                       const std::vector<Finding>& findings, const std::vector<RepairCount>& repairs) {
  const Counts counts = countsOf(drawing.paths);
  const Box box = boxOf(drawing.paths);
  nlohmann::ordered_json report;
  report["source"] = source;
  report["outlines"] = counts.outlines;
  report["closed"] = counts.closed;
  report["open"] = counts.open;
  report["nodes"] = counts.nodes;
  report["lines"] = counts.lines;
  report["arcs"] = counts.arcs;
  report["curves"] = counts.curves;
  report["width_mm"] = box.width();
  report["height_mm"] = box.height();
  report["length_mm"] = totalLength(drawing.paths);
  report["seconds"] = seconds;
  report["findings"] = nlohmann::json::array();
  for (const Finding& f : findings) {
    report["findings"].push_back({{"kind", nameOf(f.kind)},
                                  {"at", {f.at.x, f.at.y}},
                                  {"outline", f.outline},
                                  {"size_mm", f.sizeMm},
                                  {"text", sentenceOf(f)},
                                  {"repair", f.repair}});
  }
  report["repairs"] = nlohmann::json::array();
  for (const RepairCount& r : repairs) report["repairs"].push_back({{"kind", r.kind}, {"count", r.count}});
  // A file name may hold bytes that are not UTF-8; they are shown as a replacement character.
  return report.dump(2, ' ', false, nlohmann::json::error_handler_t::replace) + "\n";
}

}  // namespace rim
