#include "core/io/job/preparation_json.h"

#include <nlohmann/json.hpp>

#include "core/error.h"
#include "core/io/common/json_number.h"
#include "core/overloaded.h"

namespace rim {
namespace {

using Json = nlohmann::json;

constexpr double kFarPx = 1e6;  // farther than any picture that can be opened
constexpr int kFar = 1'000'000;
constexpr std::size_t kMostPlaces = 1'000'000;

Json toJson(Point p) { return {p.x, p.y}; }

Json toJson(const std::vector<Point>& places) {
  Json list = Json::array();
  for (const Point p : places) list.push_back(toJson(p));
  return list;
}

Json frameJson(const char* name, const Crop& f) {
  return {{"do", name}, {"x", f.x}, {"y", f.y}, {"width", f.width}, {"height", f.height}};
}

Json strokesJson(const TouchUp& step) {
  Json strokes = Json::array();
  for (const BrushStroke& stroke : step.strokes)
    strokes.push_back({{"px", stroke.diameterPx}, {"ink", stroke.ink}, {"places", toJson(stroke.places)}});
  return {{"do", "touch-up"}, {"strokes", strokes}};
}

Json cornersJson(const Straighten& step) {
  Json json{{"do", "straighten"}, {"ratio", step.sideRatio}};
  if (step.corners) json["corners"] = toJson(std::vector<Point>(step.corners->begin(), step.corners->end()));
  return json;
}

Point pointFrom(const Json& json) {
  if (!json.is_array() || json.size() != 2 || !json[0].is_number() || !json[1].is_number())
    throw InputError("a place is not two numbers.");
  const Point p{json[0].get<double>(), json[1].get<double>()};
  if (!(std::abs(p.x) <= kFarPx && std::abs(p.y) <= kFarPx)) throw InputError("a place is out of range.");
  return p;
}

const Json& listIn(const Json& json, const char* key) {
  const auto at = json.find(key);
  if (at == json.end() || !at->is_array() || at->size() > kMostPlaces)
    throw InputError("the list \"" + std::string(key) + "\" is missing.");
  return *at;
}

std::vector<Point> placesFrom(const Json& list) {
  std::vector<Point> places;
  for (const Json& place : list) places.push_back(pointFrom(place));
  return places;
}

Crop frameFrom(const Json& json) {
  return {wholeIn(json, "x", -kFar, kFar), wholeIn(json, "y", -kFar, kFar), wholeIn(json, "width", 1, kFar),
          wholeIn(json, "height", 1, kFar)};
}

Straighten straightenFrom(const Json& json) {
  Straighten step{std::nullopt, numberIn(json, "ratio", 0, 20)};
  if (json.contains("corners")) {
    const std::vector<Point> corners = placesFrom(listIn(json, "corners"));
    if (corners.size() != 4) throw InputError("a sheet has not four corners.");
    step.corners = Quad{corners[0], corners[1], corners[2], corners[3]};
  }
  return step;
}

TouchUp touchUpFrom(const Json& json) {
  TouchUp step;
  for (const Json& stroke : listIn(json, "strokes")) {
    if (!stroke.is_object()) throw InputError("a stroke of the brush is damaged.");
    step.strokes.push_back(
        {placesFrom(listIn(stroke, "places")), numberIn(stroke, "px", 0.1, 10'000), flagIn(stroke, "ink", false)});
  }
  return step;
}

Preparation preparationFrom(const Json& json) {
  const std::string what = textIn(json, "do");
  if (what == "crop") return frameFrom(json);
  if (what == "crop-to-ink") return CropToInk{wholeIn(json, "margin", 0, kFar)};
  if (what == "turn") return Turn{numberIn(json, "degrees", -3600, 3600)};
  if (what == "mirror") return Mirror{};
  if (what == "straighten") return straightenFrom(json);
  if (what == "even-light") return EvenLight{};
  if (what == "lift-shadows") return LiftShadows{numberIn(json, "px", 3, 9999)};
  if (what == "denoise") return Denoise{numberIn(json, "strength", 0.2, 5)};
  if (what == "thicken") return Thicken{numberIn(json, "px", -50, 50)};
  if (what == "fill-gaps") return FillGaps{numberIn(json, "px", 0, 50)};
  if (what == "fill-pinholes") return FillPinholes{numberIn(json, "area", 0, 1e9)};
  if (what == "drop-specks") return DropSpecks{numberIn(json, "area", 0, 1e9)};
  if (what == "enlarge") return Enlarge{numberIn(json, "factor", 1, 8)};
  if (what == "local-threshold") return LocalThreshold{numberIn(json, "px", 3, 999), numberIn(json, "bias", -255, 255)};
  if (what == "smooth-edges") return SmoothEdges{numberIn(json, "px", 0.3, 20)};
  if (what == "touch-up") return touchUpFrom(json);
  if (what == "clear") return ClearFrame{frameFrom(json), flagIn(json, "inside", false)};
  if (what == "pick-colour") {
    return PickColour{pointFrom(listIn(json, "place")), numberIn(json, "tolerance", 0, 200),
                      flagIn(json, "connected", false), flagIn(json, "ink", false), flagIn(json, "rest", false)};
  }
  throw InputError("the step \"" + what + "\" is not known. A newer version may have written it.");
}

}  // namespace

Json toJson(const PreparationStep& step) {
  Json json = std::visit(Overloaded{
                             [](const Crop& s) { return frameJson("crop", s); },
                             [](const CropToInk& s) -> Json {
                               return {{"do", "crop-to-ink"}, {"margin", s.marginPx}};
                             },
                             [](const Turn& s) -> Json {
                               return {{"do", "turn"}, {"degrees", s.degrees}};
                             },
                             [](const Mirror&) -> Json {
                               return {{"do", "mirror"}};
                             },
                             [](const Straighten& s) { return cornersJson(s); },
                             [](const EvenLight&) -> Json {
                               return {{"do", "even-light"}};
                             },
                             [](const LiftShadows& s) -> Json {
                               return {{"do", "lift-shadows"}, {"px", s.reachPx}};
                             },
                             [](const Denoise& s) -> Json {
                               return {{"do", "denoise"}, {"strength", s.strength}};
                             },
                             [](const Thicken& s) -> Json {
                               return {{"do", "thicken"}, {"px", s.px}};
                             },
                             [](const FillGaps& s) -> Json {
                               return {{"do", "fill-gaps"}, {"px", s.px}};
                             },
                             [](const FillPinholes& s) -> Json {
                               return {{"do", "fill-pinholes"}, {"area", s.areaPx2}};
                             },
                             [](const DropSpecks& s) -> Json {
                               return {{"do", "drop-specks"}, {"area", s.areaPx2}};
                             },
                             [](const Enlarge& s) -> Json {
                               return {{"do", "enlarge"}, {"factor", s.factor}};
                             },
                             [](const LocalThreshold& s) -> Json {
                               return {{"do", "local-threshold"}, {"px", s.sizePx}, {"bias", s.bias}};
                             },
                             [](const SmoothEdges& s) -> Json {
                               return {{"do", "smooth-edges"}, {"px", s.px}};
                             },
                             [](const TouchUp& s) { return strokesJson(s); },
                             [](const ClearFrame& s) {
                               Json clear = frameJson("clear", s.frame);
                               clear["inside"] = s.inside;
                               return clear;
                             },
                             [](const PickColour& s) -> Json {
                               return {{"do", "pick-colour"},
                                       {"place", toJson(s.place)},
                                       {"tolerance", s.tolerance},
                                       {"connected", s.connected},
                                       {"ink", s.ink},
                                       {"rest", s.rest}};
                             },
                         },
                         step.what);
  json["on"] = step.on;
  return json;
}

PreparationStep preparationStepFrom(const Json& json) {
  if (!json.is_object()) throw InputError("a step of the picture's preparation is damaged.");
  return {preparationFrom(json), flagIn(json, "on", true)};
}

}  // namespace rim
