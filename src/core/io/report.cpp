#include "core/io/report.h"

#include <nlohmann/json.hpp>

namespace rim::io {

std::string reportJson(const Drawing& drawing, const std::string& source, double seconds,
                       const std::vector<mend::Finding>& findings, const std::vector<mend::RepairCount>& repairs,
                       const std::vector<refine::Change>* changes) {
  const Counts counts = countsOf(pathsOf(drawing));
  const Box box = boxOf(drawing);
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
  report["length_mm"] = totalLength(pathsOf(drawing));
  report["seconds"] = seconds;
  report["findings"] = nlohmann::json::array();
  const OutlinePlaces places = placesOf(drawing);
  for (const mend::Finding& f : findings) {
    const auto place = places.find(f.outline);
    report["findings"].push_back({{"kind", mend::nameOf(f.kind)},
                                  {"at", {f.at.x, f.at.y}},
                                  {"outline", place == places.end() ? 0 : place->second},
                                  {"size_mm", f.sizeMm},
                                  {"text", mend::sentenceOf(f)},
                                  {"repair", f.repair}});
  }
  report["repairs"] = nlohmann::json::array();
  for (std::size_t i = 0; i < drawing.outlines.size(); ++i) {
    const StrokeWidth& stroke = drawing.outlines[i].stroke;
    if (stroke == StrokeWidth{}) continue;
    report["strokes"].push_back(
        {{"outline", i}, {"width_mm", stroke.usual}, {"least_mm", stroke.least}, {"most_mm", stroke.most}});
  }
  for (const mend::RepairCount& r : repairs) report["repairs"].push_back({{"kind", r.kind}, {"count", r.count}});
  for (const refine::Change& c : changes == nullptr ? std::vector<refine::Change>{} : *changes) {
    const auto place = places.find(c.outline);
    report["changes"].push_back({{"kind", c.kind},
                                 {"outline", place == places.end() ? 0 : place->second},
                                 {"at", {c.at.x, c.at.y}},
                                 {"moved_mm", c.movedMm}});
  }
  if (changes != nullptr && changes->empty()) report["changes"] = nlohmann::json::array();
  // A file name may hold bytes that are not UTF-8; they are shown as a replacement character.
  return report.dump(2, ' ', false, nlohmann::json::error_handler_t::replace) + "\n";
}

std::string sketchJson(const sketch::Sketch& sketch, double thicknessMm) {
  nlohmann::ordered_json report{{"profiles", nlohmann::json::array()}, {"not_extrudable", nlohmann::json::array()}};
  for (const sketch::Profile& p : sketch.profiles) {
    report["profiles"].push_back(
        {{"outer", p.outer}, {"holes", p.holes}, {"area_mm2", p.areaMm2}, {"volume_mm3", p.areaMm2 * thicknessMm}});
  }
  for (const sketch::UnfitOutline& u : sketch.unfit)
    report["not_extrudable"].push_back(
        {{"outline", u.outline}, {"why", u.why == sketch::Unfit::Open ? "open" : "crosses"}});
  return report.dump(2) + "\n";
}

}  // namespace rim::io
