#include "core/picture/preparation_cache.h"

#include "core/error.h"

namespace rim::picture {
namespace {

std::size_t pixelsOf(const Picture& picture) {
  return static_cast<std::size_t>(picture.width()) * static_cast<std::size_t>(picture.height());
}

}  // namespace

Picture PreparationCache::prepared(const Picture& original, const std::vector<PreparationStep>& steps,
                                   const std::stop_token& stop) {
  std::size_t same = 0;
  if (original_ == original.id) {
    while (same < done_.size() && same < steps.size() && done_[same].step == steps[same]) ++same;
  }
  while (done_.size() > same) {
    pixels_ -= pixelsOf(done_.back().after);
    done_.pop_back();
  }
  original_ = original.id;
  Picture picture = done_.empty() ? original : done_.back().after;
  bool keeping = true;
  for (std::size_t i = same; i < steps.size(); ++i) {
    if (stop.stop_requested()) throw Cancelled();
    if (steps[i].on) picture = picture::prepared(picture, steps[i].what);
    keeping = keeping && pixels_ + pixelsOf(picture) <= kMostPixelsKept;
    if (keeping) keep(steps[i], picture);
  }
  return picture;
}

void PreparationCache::keep(const PreparationStep& step, const Picture& after) {
  pixels_ += pixelsOf(after);
  done_.push_back({step, after});
}

}  // namespace rim::picture
