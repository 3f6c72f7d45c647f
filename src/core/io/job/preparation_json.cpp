#include "core/io/job/preparation_json.h"

#include <nlohmann/json.hpp>

#include "core/error.h"
#include "core/io/common/json_number.h"
#include "core/overloaded.h"

namespace rim::io {
namespace {

using Json = nlohmann::json;

constexpr double kFarPx = 1e6;  // farther than any picture that can be opened
constexpr int kFar = 1'000'000;
constexpr std::size_t kMostPlaces = 1'000'000;

Json placeJson(Point p) { return {p.x, p.y}; }

Json placesJson(const std::vector<Point>& places) {
  Json list = Json::array();
  for (const Point p : places) list.push_back(placeJson(p));
  return list;
}

Json frameJson(const char* name, const picture::Crop& f) {
  return {{"do", name}, {"x", f.x}, {"y", f.y}, {"width", f.width}, {"height", f.height}};
}

Json strokesJson(const picture::TouchUp& step) {
  Json strokes = Json::array();
  for (const picture::BrushStroke& stroke : step.strokes)
    strokes.push_back({{"px", stroke.diameterPx}, {"ink", stroke.ink}, {"places", placesJson(stroke.places)}});
  return {{"do", "touch-up"}, {"strokes", strokes}};
}

Json cornersJson(const picture::Straighten& step) {
  Json json{{"do", "straighten"}, {"ratio", step.sideRatio}};
  if (step.corners) json["corners"] = placesJson(std::vector<Point>(step.corners->begin(), step.corners->end()));
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

picture::Crop frameFrom(const Json& json) {
  return {wholeIn(json, "x", -kFar, kFar), wholeIn(json, "y", -kFar, kFar), wholeIn(json, "width", 1, kFar),
          wholeIn(json, "height", 1, kFar)};
}

picture::Straighten straightenFrom(const Json& json) {
  picture::Straighten step{std::nullopt, numberIn(json, "ratio", 0, 20)};
  if (json.contains("corners")) {
    const std::vector<Point> corners = placesFrom(listIn(json, "corners"));
    if (corners.size() != 4) throw InputError("a sheet has not four corners.");
    step.corners = picture::Quad{corners[0], corners[1], corners[2], corners[3]};
  }
  return step;
}

picture::TouchUp touchUpFrom(const Json& json) {
  picture::TouchUp step;
  for (const Json& stroke : listIn(json, "strokes")) {
    if (!stroke.is_object()) throw InputError("a stroke of the brush is damaged.");
    step.strokes.push_back(
        {placesFrom(listIn(stroke, "places")), numberIn(stroke, "px", 0.1, 10'000), flagIn(stroke, "ink", false)});
  }
  return step;
}

picture::Preparation preparationFrom(const Json& json) {
  const std::string what = textIn(json, "do");
  if (what == "crop") return frameFrom(json);
  if (what == "crop-to-ink") return picture::CropToInk{wholeIn(json, "margin", 0, kFar)};
  if (what == "turn") return picture::Turn{numberIn(json, "degrees", -3600, 3600)};
  if (what == "mirror") return picture::Mirror{};
  if (what == "straighten") return straightenFrom(json);
  if (what == "even-light") return picture::EvenLight{};
  if (what == "lift-shadows") return picture::LiftShadows{numberIn(json, "px", 3, 9999)};
  if (what == "denoise") return picture::Denoise{numberIn(json, "strength", 0.2, 5)};
  if (what == "thicken") return picture::Thicken{numberIn(json, "px", -50, 50)};
  if (what == "fill-gaps") return picture::FillGaps{numberIn(json, "px", 0, 50)};
  if (what == "fill-pinholes") return picture::FillPinholes{numberIn(json, "area", 0, 1e9)};
  if (what == "drop-specks") return picture::DropSpecks{numberIn(json, "area", 0, 1e9)};
  if (what == "enlarge") return picture::Enlarge{numberIn(json, "factor", 1, 8)};
  if (what == "local-threshold")
    return picture::LocalThreshold{numberIn(json, "px", 3, 999), numberIn(json, "bias", -255, 255)};
  if (what == "smooth-edges") return picture::SmoothEdges{numberIn(json, "px", 0.3, 20)};
  if (what == "touch-up") return touchUpFrom(json);
  if (what == "clear") return picture::ClearFrame{frameFrom(json), flagIn(json, "inside", false)};
  if (what == "pick-colour") {
    return picture::PickColour{pointFrom(listIn(json, "place")), numberIn(json, "tolerance", 0, 200),
                               flagIn(json, "connected", false), flagIn(json, "ink", false),
                               flagIn(json, "rest", false)};
  }
  throw InputError("the step \"" + what + "\" is not known. A newer version may have written it.");
}

}  // namespace

Json toJson(const picture::PreparationStep& step) {
  Json json = std::visit(Overloaded{
                             [](const picture::Crop& s) { return frameJson("crop", s); },
                             [](const picture::CropToInk& s) -> Json {
                               return {{"do", "crop-to-ink"}, {"margin", s.marginPx}};
                             },
                             [](const picture::Turn& s) -> Json {
                               return {{"do", "turn"}, {"degrees", s.degrees}};
                             },
                             [](const picture::Mirror&) -> Json {
                               return {{"do", "mirror"}};
                             },
                             [](const picture::Straighten& s) { return cornersJson(s); },
                             [](const picture::EvenLight&) -> Json {
                               return {{"do", "even-light"}};
                             },
                             [](const picture::LiftShadows& s) -> Json {
                               return {{"do", "lift-shadows"}, {"px", s.reachPx}};
                             },
                             [](const picture::Denoise& s) -> Json {
                               return {{"do", "denoise"}, {"strength", s.strength}};
                             },
                             [](const picture::Thicken& s) -> Json {
                               return {{"do", "thicken"}, {"px", s.px}};
                             },
                             [](const picture::FillGaps& s) -> Json {
                               return {{"do", "fill-gaps"}, {"px", s.px}};
                             },
                             [](const picture::FillPinholes& s) -> Json {
                               return {{"do", "fill-pinholes"}, {"area", s.areaPx2}};
                             },
                             [](const picture::DropSpecks& s) -> Json {
                               return {{"do", "drop-specks"}, {"area", s.areaPx2}};
                             },
                             [](const picture::Enlarge& s) -> Json {
                               return {{"do", "enlarge"}, {"factor", s.factor}};
                             },
                             [](const picture::LocalThreshold& s) -> Json {
                               return {{"do", "local-threshold"}, {"px", s.sizePx}, {"bias", s.bias}};
                             },
                             [](const picture::SmoothEdges& s) -> Json {
                               return {{"do", "smooth-edges"}, {"px", s.px}};
                             },
                             [](const picture::TouchUp& s) { return strokesJson(s); },
                             [](const picture::ClearFrame& s) {
                               Json clear = frameJson("clear", s.frame);
                               clear["inside"] = s.inside;
                               return clear;
                             },
                             [](const picture::PickColour& s) -> Json {
                               return {{"do", "pick-colour"},
                                       {"place", placeJson(s.place)},
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

picture::PreparationStep preparationStepFrom(const Json& json) {
  if (!json.is_object()) throw InputError("a step of the picture's preparation is damaged.");
  return {preparationFrom(json), flagIn(json, "on", true)};
}

}  // namespace rim::io
