#include "core/io/job/colour_json.h"

#include <nlohmann/json.hpp>

#include "core/error.h"
#include "core/io/common/json_number.h"
#include "core/overloaded.h"

namespace rim::io {
namespace {

using Json = nlohmann::json;

constexpr const char* kLayouts[] = {"silhouette", "cut-out", "shared"};
constexpr const char* kRoles[] = {"keep", "background", "dissolve"};
constexpr int kFarthestPx = 1'000'000;

Json decisionJson(const colour::InkDecision& what) {
  return std::visit(
      Overloaded{[](const colour::MergeInks& d) -> Json {
                   return {{"do", "merge"}, {"from", d.from}, {"into", d.into}};
                 },
                 [](const colour::SweepInks& d) -> Json {
                   Json way = Json::array();
                   for (const auto& p : d.way) way.push_back({{"x", p.x}, {"y", p.y}});
                   return {{"do", "sweep"}, {"way", way}, {"radius", d.radiusPx}, {"connected", d.connected}};
                 },
                 [](const colour::SplitInk& d) -> Json {
                   return {{"do", "split"}, {"ink", d.ink}};
                 },
                 [](const colour::SetInkRole& d) -> Json {
                   return {{"do", "role"}, {"ink", d.ink}, {"role", kRoles[static_cast<int>(d.role)]}};
                 },
                 [](const colour::RecolourInk& d) -> Json {
                   return {{"do", "recolour"}, {"ink", d.ink}, {"colour", colour::hexOf(d.colour)}};
                 },
                 [](const colour::RenameInk& d) -> Json {
                   return {{"do", "rename"}, {"ink", d.ink}, {"name", d.name}};
                 }},
      what);
}

std::size_t inkIn(const Json& json, const char* key) {
  return static_cast<std::size_t>(wholeIn(json, key, 0, colour::kMostInks - 1));
}

colour::SweepInks sweepFrom(const Json& json) {
  colour::SweepInks sweep;
  sweep.radiusPx = wholeIn(json, "radius", 0, kFarthestPx);
  sweep.connected = flagIn(json, "connected", false);
  for (const Json& p : json.value("way", Json::array()))
    sweep.way.push_back({wholeIn(p, "x", -kFarthestPx, kFarthestPx), wholeIn(p, "y", -kFarthestPx, kFarthestPx)});
  return sweep;
}

colour::InkDecision decisionFrom(const Json& json) {
  const std::string what = textIn(json, "do");
  if (what == "merge") return colour::MergeInks{inkIn(json, "from"), inkIn(json, "into")};
  if (what == "sweep") return sweepFrom(json);
  if (what == "split") return colour::SplitInk{inkIn(json, "ink")};
  if (what == "role")
    return colour::SetInkRole{inkIn(json, "ink"), static_cast<colour::InkRole>(oneOf(kRoles, json, "role"))};
  if (what == "recolour") return colour::RecolourInk{inkIn(json, "ink"), colour::colourFromHex(textIn(json, "colour"))};
  if (what == "rename") return colour::RenameInk{inkIn(json, "ink"), textIn(json, "name")};
  throw InputError("a decision about the inks is damaged.");
}

}  // namespace

Json toJson(const job::ColourSettings& settings) {
  Json steps = Json::array();
  for (const colour::InkStep& step : settings.steps) {
    Json json = decisionJson(step.what);
    json["on"] = step.on;
    steps.push_back(json);
  }
  Json json{{"on", settings.on}, {"layout", kLayouts[static_cast<int>(settings.layout)]}, {"steps", steps}};
  if (settings.count) json["count"] = *settings.count;
  return json;
}

job::ColourSettings colourSettingsFrom(const Json& json) {
  if (!json.is_object()) throw InputError("the colours of the job are damaged.");
  job::ColourSettings settings;
  settings.on = flagIn(json, "on", false);
  settings.layout = static_cast<trace::InkLayout>(oneOf(kLayouts, json, "layout"));
  if (json.contains("count")) settings.count = wholeIn(json, "count", 2, colour::kMostInks);
  for (const Json& step : json.value("steps", Json::array())) {
    settings.steps.push_back(colour::stepFor(decisionFrom(step)));
    settings.steps.back().on = flagIn(step, "on", true);
  }
  return settings;
}

}  // namespace rim::io
