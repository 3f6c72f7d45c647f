#include "core/io/job/file_wish_json.h"

#include <nlohmann/json.hpp>

#include "core/error.h"
#include "core/io/common/json_number.h"

namespace rim::io {
namespace {

using Json = nlohmann::json;

constexpr const char* kFormats[] = {"dxf-2000", "dxf-r12", "svg", "pdf", "eps", "png"};
constexpr const char* kForms[] = {"beziers", "arcs", "lines"};
constexpr const char* kOrigins[] = {"drawing", "lower-left", "centre", "lower-right", "upper-left", "upper-right"};
constexpr const char* kElements[] = {"layer", "part", "outline"};
constexpr const char* kUnits[] = {"mm", "in"};
constexpr double kMostMarginMm = 10'000;
constexpr double kMostDpi = 10'000;
constexpr double kMostToleranceMm = 10;
constexpr double kMostCutterMm = 100;

}  // namespace

Json toJson(const job::FileWish& wish) {
  const job::ExportSettings& s = wish.settings;
  Json json{{"format", kFormats[static_cast<int>(wish.format)]},
            {"unit", kUnits[s.unit == Unit::Inch ? 1 : 0]},
            {"origin", kOrigins[static_cast<int>(s.origin)]},
            {"note", s.withOrigin},
            {"strokes-as-drawn", s.strokesAsDrawn},
            {"dpi", s.dpi},
            {"file-each", wish.fileEach},
            {"paths", kElements[static_cast<int>(s.element)]},
            {"by-role", s.byRole},
            {"tolerance", s.toleranceMm},
            {"of-stock", s.ofStock},
            {"on-stock", s.onStock},
            {"cutter", wish.cutterMm}};
  if (s.curves) json["curves"] = kForms[static_cast<int>(*s.curves)];
  if (s.filled) json["filled"] = *s.filled;
  if (s.marginMm) json["margin"] = *s.marginMm;
  return json;
}

job::FileWish fileWishFrom(const Json& json) {
  if (!json.is_object()) throw InputError("what is said about the file to write is damaged.");
  job::FileWish wish;
  job::ExportSettings& s = wish.settings;
  wish.format = static_cast<job::FileFormat>(oneOf(kFormats, json, "format"));
  s.unit = oneOf(kUnits, json, "unit") == 1 ? Unit::Inch : Unit::Millimetre;
  s.origin = static_cast<job::OriginAt>(oneOf(kOrigins, json, "origin"));
  s.withOrigin = flagIn(json, "note", false);
  s.strokesAsDrawn = flagIn(json, "strokes-as-drawn", false);
  s.dpi = numberIn(json, "dpi", 1, kMostDpi);
  if (json.contains("curves")) s.curves = static_cast<CurveForm>(oneOf(kForms, json, "curves"));
  if (json.contains("filled")) s.filled = flagIn(json, "filled", false);
  if (json.contains("margin")) s.marginMm = numberIn(json, "margin", 0, kMostMarginMm);
  wish.fileEach = flagIn(json, "file-each", false);
  if (json.contains("paths")) s.element = static_cast<job::SvgElement>(oneOf(kElements, json, "paths"));
  if (json.contains("tolerance")) s.toleranceMm = numberIn(json, "tolerance", 0, kMostToleranceMm);
  s.byRole = flagIn(json, "by-role", false);
  s.ofStock = flagIn(json, "of-stock", false);
  s.onStock = flagIn(json, "on-stock", false);
  if (json.contains("cutter")) wish.cutterMm = numberIn(json, "cutter", 0, kMostCutterMm);
  return wish;
}

}  // namespace rim::io
