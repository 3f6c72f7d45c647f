#include "core/io/job/traced_json.h"

#include <cmath>
#include <limits>
#include <nlohmann/json.hpp>

#include "core/error.h"
#include "core/io/common/json_number.h"
#include "core/io/common/reading.h"
#include "core/io/job/drawing_json.h"
#include "core/io/job/id_text.h"
#include "core/io/job/recipe_json.h"
#include "core/picture/save.h"
#include "core/stirred.h"

namespace rim::io {
namespace {

using Json = nlohmann::json;

/// Of all that a tracing follows from.
std::string keyOf(const job::Job& job) {
  const std::string decided = decidedForTrace(job);
  const std::uint64_t picture = stirred(0, std::span<const std::byte>(picture::pngOf(job.original)));
  return hexText(stirred(picture, std::as_bytes(std::span(decided))));
}

Json jsonOf(const trace::StrokeFacts& facts) {
  Json widths = Json::array();
  for (const trace::WidthShare& share : facts.widths) widths.push_back({share.width, share.length});
  Json json{{"widths", std::move(widths)}};
  if (std::isfinite(facts.limitPx)) json["limit"] = facts.limitPx;
  return json;
}

trace::StrokeFacts factsFrom(const Json& json) {
  trace::StrokeFacts facts{{}, std::numeric_limits<double>::infinity()};
  for (const Json& share : json.at("widths"))
    facts.widths.push_back({share.at(0).get<double>(), share.at(1).get<double>()});
  if (json.contains("limit")) facts.limitPx = numberIn(json, "limit", 0, kFarthestMm);
  return facts;
}

/// Takes all or throws before anything is taken.
bool take(const Json& json, job::Job& job) {
  if (textIn(json, "made-of") != keyOf(job)) return false;
  Drawing drawing = drawingFrom(json);
  drawing.frame = Frame::Pixels;
  std::shared_ptr<const trace::StrokeFacts> strokes;
  if (json.contains("strokes")) strokes = std::make_shared<const trace::StrokeFacts>(factsFrom(json["strokes"]));
  job.threshold = wholeIn(json, "threshold", 0, 255);
  job.strokes = std::move(strokes);
  job.tracing = std::make_shared<const Drawing>(std::move(drawing));
  job.madeOf[static_cast<std::size_t>(job::StageKind::Trace)] = std::make_shared<const job::Recipe>(job);
  return true;
}

}  // namespace

PackedBytes::Bytes tracedPart(const job::Job& job) {
  Json json = toJson(*job.tracing);
  json["made-of"] = keyOf(job);
  json["threshold"] = job.threshold;
  if (job.strokes) json["strokes"] = jsonOf(*job.strokes);
  const std::string text = json.dump(-1, ' ', false, Json::error_handler_t::replace);
  const auto bytes = std::as_bytes(std::span(text));
  return {bytes.begin(), bytes.end()};
}

bool takeTraced(PackedBytes::Bytes part, job::Job& job) {
  constexpr bool kThrow = false;
  const char* text = reinterpret_cast<const char*>(part.data());
  try {
    if (!take(Json::parse(text, text + part.size(), nullptr, kThrow), job)) return false;
  } catch (const InputError&) {
    return false;
  } catch (const Json::exception&) {
    return false;
  }
  job.packedTracing = PackedBytes(std::move(part));
  return true;
}

}  // namespace rim::io
