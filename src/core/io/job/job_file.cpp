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
#include "core/io/job/drawing_json.h"
#include "core/io/job/recipe_json.h"
#include "core/io/job/traced_json.h"
#include "core/io/svg/read_svg.h"
#include "core/io/svg/write_svg.h"
#include "core/job/stages.h"
#include "core/picture/load.h"
#include "core/picture/save.h"

namespace rim::io {
namespace {

using Json = nlohmann::json;

constexpr const char* kPicture = "picture.png";
constexpr const char* kDrawing = "drawing.json";
constexpr const char* kDrawingOfVersion1 = "drawing.svg";
constexpr const char* kSettings = "job.json";
constexpr const char* kReferences = "references.json";
constexpr const char* kTraced = "traced.json";
constexpr const char* kOutlines = "outlines.svg";

std::vector<std::byte> bytesOf(const std::string& text) {
  const auto bytes = std::as_bytes(std::span(text));
  return {bytes.begin(), bytes.end()};
}

std::string_view charactersOf(const std::vector<std::byte>& bytes) {
  return {reinterpret_cast<const char*>(bytes.data()), bytes.size()};
}

/// The outlines of reference copies, which are too many to be written with every decision.
Json referencesOf(const job::Job& job) {
  Json list = Json::array();
  for (const job::Reference& reference : job.references) list.push_back(toJson(*reference.outlines));
  return list;
}

/// Without their names yet; in the frame of a picture's outlines, or in mm.
std::vector<job::Reference> referencesFrom(const Json& list, Frame frame) {
  if (!list.is_array() || list.size() > job::kMostReferences)
    throw InputError("the reference copies in the job are damaged.");
  std::vector<job::Reference> references;
  for (const Json& json : list) {
    Drawing outlines = drawingFrom(json);
    outlines.frame = frame;
    references.push_back({{}, std::make_shared<const Drawing>(std::move(outlines)), true});
  }
  return references;
}

Json jsonIn(const ZipParts& parts, const char* name) {
  constexpr bool kThrow = false;
  return Json::parse(charactersOf(parts.at(name)), nullptr, kThrow);
}

Drawing drawingIn(const ZipParts& parts, const std::stop_token& stop) {
  if (parts.contains(kDrawing)) return drawingFrom(jsonIn(parts, kDrawing));
  ReadOptions options;
  options.stop = stop;
  return svg::readSvg(charactersOf(parts.at(kDrawingOfVersion1)), options).drawing;
}

}  // namespace

bool isJobFile(const std::filesystem::path& file) {
  std::ifstream in(file, std::ios::binary);
  char begin[4] = {};
  return in.read(begin, sizeof begin) && std::memcmp(begin, "PK\3\4", sizeof begin) == 0;
}

void saveJob(const job::Job& job, const std::filesystem::path& file) {
  if (!job::hasWork(job)) throw InputError("there is no picture and no drawing in the job yet.");
  std::vector<ZipPart> parts;
  std::list<std::vector<std::byte>> texts;  // what the parts look at
  const auto addText = [&](const char* name, const std::string& text) {
    parts.push_back({name, texts.emplace_back(bytesOf(text)), false});
  };
  const auto addJson = [&](const char* name, const Json& json) {
    addText(name, json.dump(-1, ' ', false, Json::error_handler_t::replace));
  };
  if (job.drawing) {
    addJson(kDrawing, toJson(*job.drawing));
  } else {
    parts.push_back({kPicture, picture::pngOf(job.original), true});
  }
  // Stored as it is: it is the larger part of what has to be written after every change.
  if (!job.drawing && job::hasTracing(job))
    parts.push_back({kTraced, job.packedTracing.bytes([&job] { return tracedPart(job); }), true});
  addText(kSettings, recipeText(job));
  if (!job.references.empty()) addJson(kReferences, referencesOf(job));
  if (job::hasOutlines(job))
    addText(kOutlines, svg::svgText(asPlaced(job, job::drawingOf(job), FileKind::Svg), job.origin));
  writeBeside(file, [&parts](const std::filesystem::path& beside) { writeZip(beside, parts); });
}

job::Job loadJob(const std::filesystem::path& file, const std::stop_token& stop) {
  ZipParts parts =
      readZip(file, {kPicture, kDrawing, kDrawingOfVersion1, kSettings, kReferences, kTraced}, picture::kMostFileBytes);
  if (stop.stop_requested()) throw Cancelled();
  if (!parts.contains(kSettings)) throw InputError("this is not a job of Snug Rim.");
  const Json json = recipeJsonFrom(charactersOf(parts.at(kSettings)));
  job::Job job;
  if (parts.contains(kDrawing) || parts.contains(kDrawingOfVersion1)) {
    job = job::jobOn(drawingIn(parts, stop), textIn(json["picture"], "name"));
  } else if (!parts.contains(kPicture)) {
    throw InputError("the picture is missing from the job.");
  } else {
    job.original = picture::loadPicture(parts.at(kPicture), textIn(json["picture"], "name"), 1, stop);
    job.original.dotsPerInch = numberIn(json["picture"], "dots-per-inch", 0, 100'000);
    job.original.packed = PackedBytes(std::move(parts.at(kPicture)));
  }
  const Frame frame = job.drawing ? Frame::Millimetres : Frame::Pixels;
  if (parts.contains(kReferences)) job.references = referencesFrom(jsonIn(parts, kReferences), frame);
  readRecipe(json, job);
  if (!job.drawing && parts.contains(kTraced)) takeTraced(std::move(parts.at(kTraced)), job);
  return job;
}

}  // namespace rim::io
