#include "core/job/job_bytes.h"

namespace rim::job {
namespace {

std::size_t bytesOf(const cv::Mat& pixels) { return pixels.total() * pixels.elemSize(); }

std::size_t bytesOf(const std::vector<picture::PreparationStep>& steps) {
  std::size_t bytes = steps.size() * sizeof(picture::PreparationStep);
  for (const picture::PreparationStep& step : steps) {
    const auto* touchUp = std::get_if<picture::TouchUp>(&step.what);
    if (touchUp == nullptr) continue;
    for (const picture::BrushStroke& stroke : touchUp->strokes)
      bytes += sizeof stroke + stroke.places.size() * sizeof(Point);
  }
  return bytes;
}

std::size_t bytesOf(const std::vector<colour::InkStep>& steps) {
  std::size_t bytes = steps.size() * sizeof(colour::InkStep);
  for (const colour::InkStep& step : steps) {
    if (const auto* sweep = std::get_if<colour::SweepInks>(&step.what))
      bytes += sweep->way.size() * sizeof(colour::SweepInks::Place);
  }
  return bytes;
}

/// The list of outlines and those paths that are not the other drawing's, too.
std::size_t bytesOf(const Drawing& drawing, const Drawing* other) {
  std::size_t bytes = drawing.outlines.size() * sizeof(Outline);
  const OutlinePlaces places = other == nullptr ? OutlinePlaces{} : placesOf(*other);
  for (const Outline& outline : drawing.outlines) {
    const auto place = places.find(outline.id);
    if (place != places.end() && other->outlines[place->second].sharesPath(outline)) continue;
    bytes += sizeof(Path) + outline.path().segments.size() * sizeof(Segment);
  }
  return bytes;
}

void add(const picture::Picture& picture, bool result, std::vector<HeldBytes>& held) {
  if (picture.empty()) return;
  constexpr std::size_t kGreyAndColours = 4;
  held.push_back({picture.grey.get(), kGreyAndColours * bytesOf(*picture.grey), result});
  if (picture.packed.size() > 0) held.push_back({picture.packed.shared(), picture.packed.size(), result});
  if (picture.document) held.push_back({picture.document.get(), picture.document->bytes.size(), result});
}

void add(const colour::InkMap& map, std::vector<HeldBytes>& held) {
  if (map.labels) held.push_back({map.labels.get(), bytesOf(*map.labels), true});
}

}  // namespace

std::vector<HeldBytes> heldBy(const Job& job) {
  std::vector<HeldBytes> held;
  held.push_back({nullptr, sizeof job + bytesOf(job.preparation) + bytesOf(job.colours.steps) +
                               job.mend.steps.size() * sizeof(mend::MendStep)});
  for (const auto& made : job.madeOf) {
    if (made)
      held.push_back({made.get(), sizeof *made + bytesOf(made->preparation) + bytesOf(made->colours.steps), true});
  }
  add(job.original, false, held);
  if (job.picture.id != job.original.id) add(job.picture, true, held);
  for (const Reference& reference : job.references)
    held.push_back({reference.outlines.get(), bytesOf(*reference.outlines, nullptr), false});
  if (job.drawing) held.push_back({job.drawing.get(), bytesOf(*job.drawing, nullptr), false});
  if (job.tracing && job.tracing != job.drawing)
    held.push_back({job.tracing.get(), bytesOf(*job.tracing, nullptr), true});
  if (job.packedTracing.size() > 0) held.push_back({job.packedTracing.shared(), job.packedTracing.size(), true});
  if (job.mended) held.push_back({job.mended.get(), bytesOf(*job.mended, job.tracing.get()), true});
  if (job.refined) held.push_back({job.refined.get(), bytesOf(*job.refined, mendedOf(job).get()), true});
  if (job.found) add(job.found->map, held);
  if (job.inks) add(*job.inks, held);
  return held;
}

}  // namespace rim::job
