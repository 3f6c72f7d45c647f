#include "core/io/job/drawing_json.h"

#include <algorithm>
#include <array>
#include <limits>
#include <nlohmann/json.hpp>

#include "core/colour/inks.h"
#include "core/error.h"
#include "core/io/common/json_number.h"
#include "core/io/common/reading.h"
#include "core/io/job/id_text.h"
#include "core/io/job/path_text.h"

namespace rim::io {
namespace {

using Json = nlohmann::json;

[[noreturn]] void failDrawing() { throw InputError("the outlines of the drawing in the job are damaged."); }

constexpr std::array kOutlineRoles{"", "cut", "engrave", "score", "helper"};

Json jsonOf(const Outline& outline) {
  Json json{{"id", idText(outline.id)}, {"closed", outline.path().closed}, {"d", textOf(outline.path())}};
  if (outline.layer != 0) json["layer"] = outline.layer;
  if (outline.group != 0) json["group"] = outline.group;
  if (outline.role != OutlineRole::ByLayer) json["role"] = kOutlineRoles[static_cast<std::size_t>(outline.role)];
  if (outline.stroke != StrokeWidth{})
    json["stroke"] = {{"usual", outline.stroke.usual}, {"least", outline.stroke.least}, {"most", outline.stroke.most}};
  if (outline.minted() != 0) json["minted"] = outline.minted();
  return json;
}

OutlineRole roleFrom(const std::string& name) {
  const auto known = std::find(kOutlineRoles.begin(), kOutlineRoles.end(), name);
  if (known == kOutlineRoles.end()) failDrawing();
  return static_cast<OutlineRole>(known - kOutlineRoles.begin());
}

/// Version 3 knew one width.
StrokeWidth strokeFrom(const Json& json) {
  if (json.contains("stroke-width")) {
    const double width = numberIn(json, "stroke-width", 0, kFarthestMm);
    return {width, width, width};
  }
  if (!json.contains("stroke")) return {};
  const Json& stroke = json["stroke"];
  return {numberIn(stroke, "usual", 0, kFarthestMm), numberIn(stroke, "least", 0, kFarthestMm),
          numberIn(stroke, "most", 0, kFarthestMm)};
}

Outline outlineFrom(const Json& json, std::size_t layers) {
  if (!json.is_object() || !json.contains("d") || !json["d"].is_string()) failDrawing();
  constexpr int kMost = std::numeric_limits<int>::max();
  const int lastLayer = std::max(0, static_cast<int>(layers) - 1);
  Outline outline(pathFrom(json["d"].get_ref<const std::string&>(), flagIn(json, "closed", false)));
  if (json.contains("id")) outline.id = idFromText(textIn(json, "id"));
  if (json.contains("layer")) outline.layer = static_cast<std::size_t>(wholeIn(json, "layer", 0, lastLayer));
  if (json.contains("group")) outline.group = static_cast<std::uint32_t>(wholeIn(json, "group", 0, kMost));
  if (json.contains("role")) outline.role = roleFrom(textIn(json, "role"));
  outline.stroke = strokeFrom(json);
  if (json.contains("minted")) outline.setMinted(static_cast<std::uint32_t>(wholeIn(json, "minted", 0, kMost)));
  return outline;
}

Layer layerFrom(const Json& json) {
  const colour::Rgb colour = colour::colourFromHex(textIn(json, "colour"));
  return {textIn(json, "name"), colour.r, colour.g, colour.b};
}

double sideIn(const Json& page, std::size_t i) {
  if (!page.is_array() || page.size() != 2 || !page[i].is_number()) failDrawing();
  const auto side = page[i].get<double>();
  if (!(side >= 0 && side <= kFarthestMm)) failDrawing();
  return side;
}

}  // namespace

Json toJson(const Drawing& drawing) {
  Json layers = Json::array();
  for (const Layer& layer : drawing.layers)
    layers.push_back({{"name", layer.name}, {"colour", colour::hexOf({layer.red, layer.green, layer.blue})}});
  Json paths = Json::array();
  for (const Outline& outline : drawing.outlines) paths.push_back(jsonOf(outline));
  return {{"page", {drawing.pageWidth, drawing.pageHeight}}, {"layers", layers}, {"paths", std::move(paths)}};
}

Drawing drawingFrom(const Json& json) {
  if (!json.is_object() || !json.contains("page") || !json.contains("paths") || !json["paths"].is_array())
    failDrawing();
  Drawing drawing;
  drawing.pageWidth = sideIn(json["page"], 0);
  drawing.pageHeight = sideIn(json["page"], 1);
  for (const Json& layer : json.value("layers", Json::array())) drawing.layers.push_back(layerFrom(layer));
  std::size_t segments = 0;
  for (const Json& path : json["paths"]) {
    drawing.outlines.push_back(outlineFrom(path, drawing.layers.size()));
    segments += drawing.outlines.back().path().segments.size();
    if (segments > kMostSegments) failDrawing();
  }
  mintIds(drawing);  // a job of before outlines had any
  if (placesOf(drawing).size() != drawing.outlines.size()) failDrawing();
  return drawing;
}

}  // namespace rim::io
