#include "app/history.h"

#include <unordered_set>

namespace rim::app {
void History::edit(Job job, const QString& name, const QString& mergeKey) {
  const bool merges = !mergeKey.isEmpty() && mergeKey == mergeKey_ && !canRedo();
  steps_.erase(steps_.begin() + static_cast<std::ptrdiff_t>(at_ + 1), steps_.end());
  if (!merges) {
    steps_.push_back({{}, name, {}});
    ++at_;
  }
  mergeKey_ = mergeKey;
  complete(std::move(job));
}

void History::undo() {
  if (canUndo()) --at_;
  seal();
}

void History::redo() {
  if (canRedo()) ++at_;
  seal();
}

void History::complete(Job job) {
  steps_[at_].held = heldBy(job);
  steps_[at_].job = std::move(job);
  forgetOldest();
}

void History::forgetOldest() {
  std::unordered_set<const void*> counted{nullptr};
  std::size_t bytes = 0;
  // From the newest on: what several steps share stays as long as the newest of them.
  std::size_t kept = 0;
  for (auto step = steps_.rbegin(); step != steps_.rend() && kept < kMostSteps; ++step, ++kept) {
    for (const HeldBytes& own : step->held) {
      if (own.shared == nullptr || counted.insert(own.shared).second) bytes += own.bytes;
    }
    if (bytes > kMostBytes) break;
  }
  while (at_ > 0 && steps_.size() > kept) {
    steps_.pop_front();
    --at_;
  }
}

}  // namespace rim::app
