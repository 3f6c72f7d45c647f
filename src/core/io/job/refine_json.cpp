#include "core/io/job/refine_json.h"

#include <algorithm>
#include <array>
#include <nlohmann/json.hpp>

#include "core/colour/inks.h"
#include "core/error.h"
#include "core/io/common/json_number.h"
#include "core/io/common/reading.h"
#include "core/io/job/drawing_json.h"
#include "core/io/job/id_text.h"
#include "core/io/job/path_text.h"
#include "core/overloaded.h"

namespace rim::io {
namespace {

using Json = nlohmann::json;
using namespace refine;

constexpr double kMostMm = 1e6;
constexpr int kMostLayers = 100000;
constexpr std::array kJoins{"round", "mitre", "bevel"};
constexpr std::array kTips{"round", "flat"};
constexpr std::array kKept{"one", "outer", "inner", "centre", "leave"};  // DoubleRule
constexpr std::array kWishes{"auto", "mirror", "turn"};
constexpr std::array kFroms{"best", "mean", "left", "right", "lower", "upper"};
constexpr std::array kCurveForms{"beziers", "arcs", "lines"};
constexpr std::array kRules{"unite", "subtract", "intersect", "exclude"};

[[noreturn]] void fail() { throw InputError("a step of the Refine step is damaged."); }

template <class Enum, std::size_t N>
Enum wordIn(const Json& json, const char* key, const std::array<const char*, N>& words) {
  const auto found = std::find(words.begin(), words.end(), textIn(json, key));
  if (found == words.end()) fail();
  return static_cast<Enum>(found - words.begin());
}

template <class Enum, std::size_t N>
std::string word(Enum value, const std::array<const char*, N>& words) {
  return words[static_cast<std::size_t>(value)];
}

double mm(const Json& json, const char* key) { return numberIn(json, key, -kMostMm, kMostMm); }
Point place(const Json& json, const char* x, const char* y) { return {mm(json, x), mm(json, y)}; }

Json kindsJson(const std::set<refine::TrueUpKind>& kinds) {
  Json names = Json::array();
  for (const refine::TrueUpKind kind : kinds) names.push_back(refine::nameOf(kind));
  return names;
}

std::set<refine::TrueUpKind> kindsIn(const Json& json) {
  std::set<refine::TrueUpKind> kinds;
  for (const std::string& name : textsIn(json, "kinds")) {
    std::size_t k = 0;
    while (k < refine::kTrueUpKinds && refine::nameOf(static_cast<refine::TrueUpKind>(k)) != name) ++k;
    if (k == refine::kTrueUpKinds) fail();
    kinds.insert(static_cast<refine::TrueUpKind>(k));
  }
  return kinds;
}

Json markJson(const OutlineMark& mark) {
  return {{"id", idText(mark.id)}, {"x", mark.middle.x}, {"y", mark.middle.y},
          {"w", mark.size.x},      {"h", mark.size.y},   {"area", mark.area}};
}

OutlineMark markFrom(const Json& json) {
  const auto number = [&json](const char* key) { return numberIn(json, key, -kFarthestMm, kFarthestMm); };
  return {idFromText(textIn(json, "id")),
          {number("x"), number("y")},
          {number("w"), number("h")},
          numberIn(json, "area", 0, kFarthestMm * kFarthestMm)};
}

Json layerJson(const Layer& layer) {
  return {{"name", layer.name}, {"colour", colour::hexOf({layer.red, layer.green, layer.blue})}};
}

Layer layerFrom(const Json& json, const char* key) {
  if (!json.contains(key) || !json[key].is_object()) fail();
  const colour::Rgb colour = colour::colourFromHex(textIn(json[key], "colour"));
  Layer layer{textIn(json[key], "name"), colour.r, colour.g, colour.b};
  if (layer.name.empty()) fail();
  return layer;
}

Json marksJson(const std::vector<OutlineMark>& marks) {
  Json all = Json::array();
  for (const OutlineMark& mark : marks) all.push_back(markJson(mark));
  return all;
}

Json pathJson(const Path& path) { return {{"closed", path.closed}, {"d", textOf(path)}}; }
Path pathFrom(const Json& json) { return io::pathFrom(textIn(json, "d"), flagIn(json, "closed", false)); }

Json listOf(const Json& json, const char* key) {
  const Json list = json.value(key, Json::array());
  if (!list.is_array()) fail();
  return list;
}

Json numbersOf(const refine::Step& step) {
  return std::visit(
      Overloaded{
          [](const refine::TrueUp& s) -> Json {
            return {{"kinds", kindsJson(s.kinds)}, {"within", s.withinMm}};
          },
          [](const refine::Symmetrize& s) -> Json {
            return {{"wish", word(s.wish, kWishes)}, {"from", word(s.from, kFroms)}, {"within", s.withinMm}};
          },
          [](const refine::Sharpen& s) -> Json {
            return {{"mm", s.missingMm}};
          },
          [](const refine::FilletCorners& s) -> Json {
            return {{"mm", s.radiusMm}};
          },
          [](const refine::Simplify& s) -> Json {
            return {{"mm", s.withinMm}, {"form", word(s.form, kCurveForms)}};
          },
          [](const refine::UniteAll&) -> Json { return Json::object(); },
          [](const refine::CombineWith& s) -> Json {
            return {
                {"rule", word(s.rule, kRules)}, {"name", s.name}, {"drawing", toJson(s.other ? *s.other : Drawing{})}};
          },
          [](const refine::OffsetBy& s) -> Json {
            return {{"mm", s.mm}, {"joins", word(s.joins, kJoins)}};
          },
          [](const refine::AddRing& s) -> Json {
            return {{"gap", s.gapMm}, {"width", s.widthMm}, {"joins", word(s.joins, kJoins)}};
          },
          [](const refine::ThickenLines& s) -> Json {
            return {{"mm", s.mm}, {"joins", word(s.joins, kJoins)}, {"tips", word(s.tips, kTips)}};
          },
          [](const refine::StrokesTo& s) -> Json {
            return {{"keep", word(s.keep, kKept)}, {"widest", s.widestMm}};
          },
          [](const refine::Rotate& s) -> Json {
            return {{"degrees", s.degrees}};
          },
          [](const refine::Reflect& s) -> Json {
            return {{"left-right", s.leftRight}};
          },
          [](const refine::ScaleBy& s) -> Json {
            return {{"factor", s.factor}};
          },
          [](const refine::PlaceAt& s) -> Json {
            return {{"x", s.at.x}, {"y", s.at.y}, {"hold", static_cast<int>(s.hold)}};
          },
          [](const refine::FitInto& s) -> Json {
            return {{"w", s.widthMm}, {"h", s.heightMm}};
          },
          [](const refine::Array& s) -> Json {
            return {{"columns", s.columns}, {"rows", s.rows}, {"x", s.gapsMm.x}, {"y", s.gapsMm.y}};
          },
          [](const refine::ArrayRound& s) -> Json {
            return {{"count", s.count}, {"x", s.centre.x}, {"y", s.centre.y}};
          },
          [](const refine::Remove& s) -> Json {
            return {{"outlines", marksJson(s.outlines)}};
          },
          [](const refine::EditLayer& s) -> Json {
            return {{"layer", s.name}, {"as", layerJson(s.as)}};
          },
          [](const refine::HideLayer& s) -> Json {
            return {{"layer", s.name}};
          },
          [](const refine::PutOnLayer& s) -> Json {
            return {{"outlines", marksJson(s.outlines)}, {"on", layerJson(s.layer)}};
          },
          [](const refine::LockLayer& s) -> Json {
            return {{"layer", s.name}};
          },
          [](const refine::MoveLayer& s) -> Json {
            return {{"layer", s.name}, {"place", s.place}};
          },
          [](const refine::Group& s) -> Json {
            return {{"outlines", marksJson(s.outlines)}, {"together", s.together}};
          },
          [](const refine::Replace& s) -> Json {
            Json all = Json::array();
            for (const refine::Replace::One& one : s.outlines) {
              all.push_back(markJson(one.was));
              all.back().update(pathJson(one.path));
            }
            return {{"kind", s.kind}, {"outlines", all}};
          },
          [](const refine::ByHand& s) -> Json {
            Json all = Json::array();
            for (const refine::ByHand::One& one : s.changes) {
              Json json = one.was.id == OutlineId::None ? Json{{"new", true}, {"layer", one.layer}} : markJson(one.was);
              json["paths"] = Json::array();
              for (const auto& path : one.paths) json["paths"].push_back(pathJson(*path));
              all.push_back(std::move(json));
            }
            return {{"changes", all}};
          }},
      step);
}

std::vector<OutlineMark> marksIn(const Json& json) {
  std::vector<OutlineMark> marks;
  for (const Json& mark : listOf(json, "outlines")) marks.push_back(markFrom(mark));
  return marks;
}

refine::Replace replaceFrom(const Json& json) {
  refine::Replace step{textIn(json, "kind"), {}};
  for (const Json& one : listOf(json, "outlines")) step.outlines.push_back({markFrom(one), pathFrom(one)});
  return step;
}

refine::ByHand byHandFrom(const Json& json) {
  refine::ByHand step;
  for (const Json& one : listOf(json, "changes")) {
    std::vector<Path> paths;
    for (const Json& path : listOf(one, "paths")) paths.push_back(pathFrom(path));
    const bool fresh = flagIn(one, "new", false);
    const int layer = fresh && one.contains("layer") ? wholeIn(one, "layer", 0, kMostLayers) : 0;
    step.changes.push_back(
        refine::madeByHand(fresh ? OutlineMark{} : markFrom(one), std::move(paths), static_cast<std::size_t>(layer)));
  }
  return step;
}

refine::CombineWith combineFrom(const Json& json) {
  refine::CombineWith step{wordIn<refine::AreaRule>(json, "rule", kRules), nullptr, textIn(json, "name")};
  if (!json.contains("drawing")) fail();
  step.other = std::make_shared<const Drawing>(drawingFrom(json["drawing"]));
  return step;
}

}  // namespace

Json toJson(const refine::Step& step) {
  Json json = numbersOf(step);
  json["do"] = refine::nameOf(step);
  return json;
}

refine::Step refineStepFrom(const Json& json) {
  if (!json.is_object()) fail();
  const std::string what = textIn(json, "do");
  constexpr double kTiny = 1e-9;
  const auto positive = [&json](const char* key) { return numberIn(json, key, kTiny, kMostMm); };
  if (what == "true-up") return refine::TrueUp{kindsIn(json), positive("within")};
  if (what == "symmetry")
    return refine::Symmetrize{wordIn<refine::SymmetryWish>(json, "wish", kWishes),
                              wordIn<refine::SymmetryFrom>(json, "from", kFroms), positive("within")};
  if (what == "sharpen") return refine::Sharpen{positive("mm")};
  if (what == "fillet") return refine::FilletCorners{positive("mm")};
  if (what == "simplify") return refine::Simplify{positive("mm"), wordIn<CurveForm>(json, "form", kCurveForms)};
  if (what == "unite") return refine::UniteAll{};
  if (what == "combine") return combineFrom(json);
  if (what == "offset") return refine::OffsetBy{mm(json, "mm"), wordIn<refine::Joins>(json, "joins", kJoins)};
  if (what == "ring")
    return refine::AddRing{positive("gap"), positive("width"), wordIn<refine::Joins>(json, "joins", kJoins)};
  if (what == "thicken")
    return refine::ThickenLines{numberIn(json, "mm", 0, kMostMm), wordIn<refine::Joins>(json, "joins", kJoins),
                                wordIn<refine::Tips>(json, "tips", kTips)};
  if (what == "strokes") {
    const refine::StrokesTo to{wordIn<mend::DoubleRule>(json, "keep", kKept), positive("widest")};
    if (to.keep == mend::DoubleRule::One || to.keep == mend::DoubleRule::Leave) fail();
    return to;
  }
  if (what == "rotate") return refine::Rotate{mm(json, "degrees")};
  if (what == "mirror") return refine::Reflect{flagIn(json, "left-right", true)};
  if (what == "scale") return refine::ScaleBy{positive("factor")};
  if (what == "place")
    return refine::PlaceAt{place(json, "x", "y"), static_cast<refine::Hold>(wholeIn(json, "hold", 0, 8))};
  if (what == "fit") return refine::FitInto{positive("w"), positive("h")};
  if (what == "array")
    return refine::Array{wholeIn(json, "columns", 1, refine::kMostCopies),
                         wholeIn(json, "rows", 1, refine::kMostCopies), place(json, "x", "y")};
  if (what == "array-round")
    return refine::ArrayRound{wholeIn(json, "count", 1, refine::kMostCopies), place(json, "x", "y")};
  if (what == "remove") return refine::Remove{marksIn(json)};
  if (what == "replace") return replaceFrom(json);
  if (what == "by-hand") return byHandFrom(json);
  if (what == "edit-layer") return refine::EditLayer{textIn(json, "layer"), layerFrom(json, "as")};
  if (what == "hide-layer") return refine::HideLayer{textIn(json, "layer")};
  if (what == "put-on-layer") return refine::PutOnLayer{marksIn(json), layerFrom(json, "on")};
  if (what == "lock-layer") return refine::LockLayer{textIn(json, "layer")};
  if (what == "move-layer") return refine::MoveLayer{textIn(json, "layer"), wholeIn(json, "place", 0, kMostLayers)};
  if (what == "group") return refine::Group{marksIn(json), flagIn(json, "together", true)};
  throw InputError("\"" + what + "\" is unknown in the Refine step of the job.");
}

}  // namespace rim::io
