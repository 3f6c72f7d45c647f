#include "core/io/job/recipe_json.h"

#include <nlohmann/json.hpp>

#include "core/error.h"
#include "core/io/common/json_number.h"
#include "core/io/common/reading.h"
#include "core/io/job/colour_json.h"
#include "core/io/job/file_wish_json.h"
#include "core/io/job/mend_json.h"
#include "core/io/job/preparation_json.h"
#include "core/io/job/refine_json.h"
#include "core/trace/outline/rules.h"

namespace rim::io {
namespace {

using Json = nlohmann::json;

constexpr int kVersion = 8;
constexpr const char* kSizes[] = {"resolution", "picture-width", "picture-height", "outlines-width", "outlines-height"};

Json jsonOf(const trace::TraceSettings& settings) {
  Json trace{{"light-is-ink", settings.lightIsInk},
             {"tolerance-px", settings.tolerancePx},
             {"min-area-px2", settings.minAreaPx2},
             {"corners", settings.cornerReadiness},
             {"exact", trace::outline::namesOf(settings.rules)},
             {"method", trace::kTraceMethodNames[static_cast<std::size_t>(settings.method)]},
             {"heal-px", settings.strokes.healPx},
             {"ends", trace::kStrokeEndsNames[static_cast<std::size_t>(settings.strokes.ends)]}};
  if (settings.strokes.limitPx) trace["stroke-limit-px"] = *settings.strokes.limitPx;
  for (const trace::PartSwitch& part : settings.strokes.switched)
    trace["switched-px"].push_back({{"x", part.at.x}, {"y", part.at.y}, {"whole", part.whole}});
  if (settings.threshold) trace["threshold"] = *settings.threshold;
  return trace;
}

Json jsonOf(const std::vector<picture::PreparationStep>& preparation) {
  Json steps = Json::array();
  for (const picture::PreparationStep& step : preparation) steps.push_back(toJson(step));
  return steps;
}

Json jsonOf(const job::Recipe& job) {
  Json refined = Json::array();
  for (const refine::Step& step : job.refine) refined.push_back(toJson(step));
  Json json{{"snugrim-job", kVersion},
            {"picture", {{"name", job.original.name}, {"dots-per-inch", job.original.dotsPerInch}}},
            {"origin", job.origin},
            {"preparation", jsonOf(job.preparation)},
            {"colours", toJson(job.colours)},
            {"trace", jsonOf(job.trace)},
            {"mend", toJson(job.mend)},
            {"refine", refined},
            {"size", {{"of", kSizes[static_cast<int>(job.size.of)]}, {"value", job.size.value}}}};
  if (job.stock) {
    json["stock"] = {
        {"width", job.stock->widthMm}, {"height", job.stock->heightMm}, {"x", job.stock->at.x}, {"y", job.stock->at.y}};
  }
  if (job.file) json["file"] = toJson(*job.file);
  for (const Guide& guide : job.guides) json["guides"].push_back({{"upright", guide.upright}, {"at", guide.at}});
  for (const job::Reference& reference : job.references)
    json["references"].push_back({{"name", reference.name}, {"shown", reference.shown}});
  return json;
}

/// The list of that name; empty when it is not there. Throws InputError when it is none, or longer than `most`.
Json listIn(const Json& json, const char* name, std::size_t most) {
  const Json list = json.value(name, Json::array());
  if (!list.is_array() || list.size() > most)
    throw InputError("the settings of the job are damaged (\"" + std::string(name) + "\").");
  return list;
}

trace::TraceSettings traceFrom(const Json& json) {
  trace::TraceSettings trace;
  if (json.is_object() && json.contains("threshold")) trace.threshold = wholeIn(json, "threshold", 0, 255);
  trace.lightIsInk = flagIn(json, "light-is-ink", false);
  trace.tolerancePx = numberIn(json, "tolerance-px", 0.05, 10);
  trace.minAreaPx2 = numberIn(json, "min-area-px2", 0, 1e9);
  trace.cornerReadiness = numberIn(json, "corners", 0, 100);
  if (json.contains("exact")) trace.rules = trace::outline::rulesNamed(textsIn(json, "exact"));
  if (json.contains("method"))
    trace.method = static_cast<trace::TraceMethod>(oneOf(trace::kTraceMethodNames, json, "method"));
  if (json.contains("ends"))
    trace.strokes.ends = static_cast<trace::StrokeEnds>(oneOf(trace::kStrokeEndsNames, json, "ends"));
  if (json.contains("heal-px")) trace.strokes.healPx = numberIn(json, "heal-px", 0, trace::kMostHealPx);
  if (json.contains("stroke-limit-px"))
    trace.strokes.limitPx = numberIn(json, "stroke-limit-px", trace::kLeastStrokeLimitPx, trace::kMostStrokeLimitPx);
  for (const Json& place : listIn(json, "switched-px", trace::kMostSwitched)) {
    const auto along = [&place](const char* axis) { return numberIn(place, axis, -kFarthestMm, kFarthestMm); };
    trace.strokes.switched.push_back({{along("x"), along("y")}, flagIn(place, "whole", false)});
  }
  return trace;
}

job::Stock stockFrom(const Json& json) {
  const auto place = [&json](const char* name) { return numberIn(json, name, -job::kMostStockMm, job::kMostStockMm); };
  const auto size = [&json](const char* name) { return numberIn(json, name, job::kLeastStockMm, job::kMostStockMm); };
  return {size("width"), size("height"), {place("x"), place("y")}};
}

std::vector<Guide> guidesFrom(const Json& json) {
  std::vector<Guide> guides;
  for (const Json& guide : listIn(json, "guides", kMostGuides))
    guides.push_back({flagIn(guide, "upright", false), numberIn(guide, "at", -kFarthestMm, kFarthestMm)});
  return guides;
}

/// Names of reference copies whose outlines are there.
void readReferences(const Json& json, std::vector<job::Reference>& references) {
  const Json list = listIn(json, "references", job::kMostReferences);
  if (list.size() != references.size()) throw InputError("a reference copy in the job is missing.");
  for (std::size_t i = 0; i < references.size(); ++i) {
    references[i].name = textIn(list[i], "name");
    references[i].shown = flagIn(list[i], "shown", true);
  }
}

job::SizeWish sizeFrom(const Json& json) {
  const auto of = static_cast<job::SizeWish::Of>(oneOf(kSizes, json, "of"));
  return {of, numberIn(json, "value", 0, job::kLargestSizeMm)};
}

}  // namespace

std::string recipeText(const job::Recipe& recipe) {
  // Text in a note may come in any encoding; what is no UTF-8 is replaced.
  constexpr int kIndent = 2;
  return jsonOf(recipe).dump(kIndent, ' ', false, Json::error_handler_t::replace);
}

std::string decidedForTrace(const job::Recipe& recipe) {
  const Json json{{"preparation", jsonOf(recipe.preparation)},
                  {"colours", toJson(recipe.colours)},
                  {"trace", jsonOf(recipe.trace)}};
  return json.dump(-1, ' ', false, Json::error_handler_t::replace);
}

Json recipeJsonFrom(std::string_view text) {
  constexpr bool kThrow = false;
  Json json = Json::parse(text, nullptr, kThrow);
  if (!json.is_object() || !json.contains("snugrim-job")) throw InputError("the settings of the job are damaged.");
  if (wholeIn(json, "snugrim-job", 1, 1'000'000) > kVersion) {
    throw InputError("the job was written by a newer version of Snug Rim. Use that one to open it.");
  }
  for (const char* part : {"picture", "trace", "size"}) {
    if (!json.contains(part)) throw InputError("the settings of the job lack \"" + std::string(part) + "\".");
  }
  return json;
}

void readRecipe(const Json& json, job::Recipe& recipe) {
  recipe.origin = textIn(json, "origin");
  for (const Json& step : json.value("preparation", Json::array()))
    recipe.preparation.push_back(preparationStepFrom(step));
  if (json.contains("colours")) recipe.colours = colourSettingsFrom(json["colours"]);
  recipe.trace = traceFrom(json["trace"]);
  recipe.size = sizeFrom(json["size"]);
  if (json.contains("mend")) recipe.mend = mendWorkFrom(json["mend"]);
  for (const Json& step : json.value("refine", Json::array())) recipe.refine.push_back(refineStepFrom(step));
  if (json.contains("stock")) recipe.stock = stockFrom(json["stock"]);
  if (json.contains("file")) recipe.file = fileWishFrom(json["file"]);
  recipe.guides = guidesFrom(json);
  readReferences(json, recipe.references);
}

}  // namespace rim::io
