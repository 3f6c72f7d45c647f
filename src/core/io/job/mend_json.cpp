#include "core/io/job/mend_json.h"

#include <nlohmann/json.hpp>

#include "core/error.h"
#include "core/io/common/json_number.h"
#include "core/io/job/id_text.h"

namespace rim::io {
namespace {

using Json = nlohmann::json;

constexpr const char* kWhats[] = {"one", "kind", "safe", "leave", "proposals"};
constexpr double kFarthest = 1e9;
constexpr double kLargestMm = 1000;

mend::MendStep stepFrom(const Json& json) {
  mend::MendStep step;
  const std::string what = textIn(json, "what");
  bool known = false;
  for (int i = 0; i < static_cast<int>(std::size(kWhats)); ++i) {
    if (what != kWhats[i]) continue;
    step.what = static_cast<mend::MendStep::What>(i);
    known = true;
  }
  if (!known) throw InputError("a decision of the Mend step is damaged.");
  const std::string kind = textIn(json, "kind");
  known = false;
  for (std::size_t i = 0; i < mend::kFindingKinds; ++i) {
    if (kind != mend::nameOf(static_cast<mend::FindingKind>(i))) continue;
    step.kind = static_cast<mend::FindingKind>(i);
    known = true;
  }
  if (!known) throw InputError("a decision of the Mend step names a kind that does not exist.");
  step.at = {numberIn(json, "x", -kFarthest, kFarthest), numberIn(json, "y", -kFarthest, kFarthest)};
  step.repair = textIn(json, "repair");
  if (json.contains("outline")) step.outline = idFromText(textIn(json, "outline"));
  if (json.contains("other")) step.other = idFromText(textIn(json, "other"));
  if (json.contains("area")) step.area = numberIn(json, "area", 0, kFarthest * kFarthest);
  return step;
}

}  // namespace

Json toJson(const mend::MendWork& work) {
  Json steps = Json::array();
  for (const mend::MendStep& s : work.steps) {
    Json step{{"what", kWhats[static_cast<int>(s.what)]},
              {"kind", mend::nameOf(s.kind)},
              {"x", s.at.x},
              {"y", s.at.y},
              {"repair", s.repair}};
    if (s.outline != OutlineId::None) step["outline"] = idText(s.outline);
    if (s.other != OutlineId::None) step["other"] = idText(s.other);
    if (s.area != 0) step["area"] = s.area;
    steps.push_back(std::move(step));
  }
  return {{"gap-mm", work.settings.gapMm}, {"speck-mm", work.settings.speckMm}, {"steps", steps}};
}

mend::MendWork mendWorkFrom(const Json& json) {
  mend::MendWork work;
  work.settings.gapMm = numberIn(json, "gap-mm", 0, kLargestMm);
  work.settings.speckMm = numberIn(json, "speck-mm", 0, kLargestMm);
  for (const Json& step : json.value("steps", Json::array())) work.steps.push_back(stepFrom(step));
  return work;
}

}  // namespace rim::io
