#include "core/io/job/job_file.h"

#include <cstring>
#include <fstream>
#include <list>
#include <nlohmann/json.hpp>

#include "core/error.h"
#include "core/io/common/json_number.h"
#include "core/io/common/safe_file.h"
#include "core/io/common/zip.h"
#include "core/io/export.h"
#include "core/io/job/colour_json.h"
#include "core/io/job/drawing_json.h"
#include "core/io/job/mend_json.h"
#include "core/io/job/preparation_json.h"
#include "core/io/job/refine_json.h"
#include "core/io/svg/read_svg.h"
#include "core/io/svg/write_svg.h"
#include "core/job/stages.h"
#include "core/picture/load.h"
#include "core/picture/save.h"
#include "core/trace/outline/rules.h"

namespace rim {
namespace {

using Json = nlohmann::json;

constexpr int kVersion = 4;
constexpr const char* kPicture = "picture.png";
constexpr const char* kDrawing = "drawing.json";
constexpr const char* kDrawingOfVersion1 = "drawing.svg";
constexpr const char* kSettings = "job.json";
constexpr const char* kOutlines = "outlines.svg";
constexpr const char* kSizes[] = {"resolution", "picture-width", "picture-height", "outlines-width", "outlines-height"};
constexpr const char* kMethods[] = {"outline", "centreline", "mixed"};
constexpr const char* kEnds[] = {"pen", "ink"};

std::vector<std::byte> bytesOf(const std::string& text) {
  const auto bytes = std::as_bytes(std::span(text));
  return {bytes.begin(), bytes.end()};
}

Json settingsOf(const Job& job) {
  Json steps = Json::array();
  for (const PreparationStep& step : job.preparation) steps.push_back(toJson(step));
  Json refined = Json::array();
  for (const refine::Step& step : job.refine) refined.push_back(toJson(step));
  Json trace{{"light-is-ink", job.trace.lightIsInk}, {"tolerance-px", job.trace.tolerancePx},
             {"min-area-px2", job.trace.minAreaPx2}, {"corners", job.trace.cornerReadiness},
             {"exact", namesOf(job.trace.rules)},    {"method", kMethods[static_cast<int>(job.trace.method)]},
             {"heal-px", job.trace.strokes.healPx},  {"ends", kEnds[static_cast<int>(job.trace.strokes.ends)]}};
  if (job.trace.strokes.limitPx) trace["stroke-limit-px"] = *job.trace.strokes.limitPx;
  if (job.trace.threshold) trace["threshold"] = *job.trace.threshold;
  return {{"snugrim-job", kVersion},
          {"picture", {{"name", job.original.name}, {"dots-per-inch", job.original.dotsPerInch}}},
          {"origin", job.origin},
          {"preparation", steps},
          {"colours", toJson(job.colours)},
          {"trace", trace},
          {"mend", toJson(job.mend)},
          {"refine", refined},
          {"size", {{"of", kSizes[static_cast<int>(job.size.of)]}, {"value", job.size.value}}}};
}

TraceSettings traceFrom(const Json& json) {
  TraceSettings trace;
  if (json.is_object() && json.contains("threshold")) trace.threshold = wholeIn(json, "threshold", 0, 255);
  trace.lightIsInk = flagIn(json, "light-is-ink", false);
  trace.tolerancePx = numberIn(json, "tolerance-px", 0.05, 10);
  trace.minAreaPx2 = numberIn(json, "min-area-px2", 0, 1e9);
  trace.cornerReadiness = numberIn(json, "corners", 0, 100);
  if (json.contains("exact")) trace.rules = rulesNamed(textsIn(json, "exact"));
  if (json.contains("method")) trace.method = static_cast<TraceMethod>(oneOf(kMethods, json, "method"));
  if (json.contains("ends")) trace.strokes.ends = static_cast<StrokeEnds>(oneOf(kEnds, json, "ends"));
  if (json.contains("heal-px")) trace.strokes.healPx = numberIn(json, "heal-px", 0, kMostHealPx);
  if (json.contains("stroke-limit-px"))
    trace.strokes.limitPx = numberIn(json, "stroke-limit-px", kLeastStrokeLimitPx, kMostStrokeLimitPx);
  return trace;
}

SizeWish sizeFrom(const Json& json) {
  const auto of = static_cast<SizeWish::Of>(oneOf(kSizes, json, "of"));
  return {of, numberIn(json, "value", 0, kLargestSizeMm)};
}

std::string_view textOf(const std::vector<std::byte>& bytes) {
  return {reinterpret_cast<const char*>(bytes.data()), bytes.size()};
}

Drawing drawingIn(const ZipParts& parts, const std::stop_token& stop) {
  constexpr bool kThrow = false;
  if (parts.contains(kDrawing)) return drawingFrom(Json::parse(textOf(parts.at(kDrawing)), nullptr, kThrow));
  ReadOptions options;
  options.stop = stop;
  return readSvg(textOf(parts.at(kDrawingOfVersion1)), options).drawing;
}

Json parsed(const std::vector<std::byte>& bytes) {
  constexpr bool kThrow = false;
  Json json = Json::parse(textOf(bytes), nullptr, kThrow);
  if (!json.is_object() || !json.contains("snugrim-job")) throw InputError("the settings of the job are damaged.");
  if (wholeIn(json, "snugrim-job", 1, 1'000'000) > kVersion) {
    throw InputError("the job was written by a newer version of Snug Rim. Use that one to open it.");
  }
  for (const char* part : {"picture", "trace", "size"}) {
    if (!json.contains(part)) throw InputError("the settings of the job lack \"" + std::string(part) + "\".");
  }
  return json;
}

}  // namespace

bool isJobFile(const std::filesystem::path& file) {
  std::ifstream in(file, std::ios::binary);
  char begin[4] = {};
  return in.read(begin, sizeof begin) && std::memcmp(begin, "PK\3\4", sizeof begin) == 0;
}

void saveJob(const Job& job, const std::filesystem::path& file) {
  if (!hasWork(job)) throw InputError("there is no picture and no drawing in the job yet.");
  std::vector<ZipPart> parts;
  std::list<std::vector<std::byte>> texts;  // what the parts look at
  const auto addText = [&](const char* name, const std::string& text) {
    parts.push_back({name, texts.emplace_back(bytesOf(text)), false});
  };
  if (job.drawing) {
    addText(kDrawing, toJson(*job.drawing).dump(-1, ' ', false, Json::error_handler_t::replace));
  } else {
    parts.push_back({kPicture, pngOf(job.original), true});
  }
  // Text in a note may come in any encoding; what is no UTF-8 is replaced.
  constexpr int kIndent = 2;
  addText(kSettings, settingsOf(job).dump(kIndent, ' ', false, Json::error_handler_t::replace));
  if (hasOutlines(job)) addText(kOutlines, svgText(asPlaced(job, drawingOf(job), FileKind::Svg), job.origin));
  writeBeside(file, [&parts](const std::filesystem::path& beside) { writeZip(beside, parts); });
}

Job loadJob(const std::filesystem::path& file, const std::stop_token& stop) {
  ZipParts parts = readZip(file, {kPicture, kDrawing, kDrawingOfVersion1, kSettings}, kMostFileBytes);
  if (stop.stop_requested()) throw Cancelled();
  if (!parts.contains(kSettings)) throw InputError("this is not a job of Snug Rim.");
  const Json json = parsed(parts.at(kSettings));
  Job job;
  if (parts.contains(kDrawing) || parts.contains(kDrawingOfVersion1)) {
    job = jobOn(drawingIn(parts, stop), textIn(json["picture"], "name"));
  } else if (!parts.contains(kPicture)) {
    throw InputError("the picture is missing from the job.");
  } else {
    job.original = loadPicture(parts.at(kPicture), textIn(json["picture"], "name"), 1, stop);
    job.original.dotsPerInch = numberIn(json["picture"], "dots-per-inch", 0, 100'000);
    job.original.packed = PackedPixels(std::move(parts.at(kPicture)));
  }
  job.origin = textIn(json, "origin");
  for (const Json& step : json.value("preparation", Json::array()))
    job.preparation.push_back(preparationStepFrom(step));
  if (json.contains("colours")) job.colours = colourSettingsFrom(json["colours"]);
  job.trace = traceFrom(json["trace"]);
  job.size = sizeFrom(json["size"]);
  if (json.contains("mend")) job.mend = mendWorkFrom(json["mend"]);
  for (const Json& step : json.value("refine", Json::array())) job.refine.push_back(refineStepFrom(step));
  return job;
}

}  // namespace rim
