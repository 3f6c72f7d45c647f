#include "app/history.h"

namespace rim::app {
namespace {

constexpr std::size_t kBytesPerPixel = 4;  // colours and grey level

std::size_t pictureBytes(const Picture& picture) {
  return static_cast<std::size_t>(picture.width()) * static_cast<std::size_t>(picture.height()) * kBytesPerPixel;
}

}  // namespace

void History::edit(Job job, const QString& name, const QString& mergeKey) {
  const bool merges = !mergeKey.isEmpty() && mergeKey == mergeKey_ && !canRedo();
  steps_.erase(steps_.begin() + static_cast<std::ptrdiff_t>(at_ + 1), steps_.end());
  if (merges) {
    steps_[at_].job = std::move(job);
  } else {
    steps_.push_back({std::move(job), name});
    ++at_;
  }
  mergeKey_ = mergeKey;
  forgetOldest();
}

void History::undo() {
  if (canUndo()) --at_;
  seal();
}

void History::redo() {
  if (canRedo()) ++at_;
  seal();
}

void History::forgetOldest() {
  std::size_t bytes = 0;
  const cv::Mat* counted = nullptr;
  for (const Step& step : steps_) {
    if (step.job.picture.grey.get() != counted) bytes += pictureBytes(step.job.picture);
    counted = step.job.picture.grey.get();
  }
  while (at_ > 0 && (steps_.size() > kMostSteps || bytes > kMostPictureBytes)) {
    const bool lastOfItsPicture = steps_[0].job.picture.grey != steps_[1].job.picture.grey;
    if (lastOfItsPicture) bytes -= pictureBytes(steps_[0].job.picture);
    steps_.pop_front();
    --at_;
  }
}

}  // namespace rim::app
