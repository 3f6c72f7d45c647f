#include "app/history.h"

#include <algorithm>
#include <unordered_set>

#include "core/job/stages.h"

namespace rim::app {
void History::edit(job::Job job, const QString& name, const QString& mergeKey) {
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

void History::goToOutlines() {
  const auto has = [this](std::size_t i) { return job::hasOutlines(steps_[i].job); };
  std::size_t to = at_;
  while (to > 0 && !has(to)) --to;
  for (std::size_t i = at_; !has(to) && i < steps_.size(); ++i) {
    if (has(i)) to = i;
  }
  at_ = to;
  seal();
}

void History::complete(job::Job job) {
  job.memo.reset();
  steps_[at_].held = job::heldBy(job);
  steps_[at_].job = std::move(job);
  dropFarResults();
  forgetOldest();
}

void History::dropFarResults() {
  std::unordered_set<const void*> counted;
  std::size_t bytes = 0;
  const auto visit = [&](std::size_t i) {
    Step& step = steps_[i];
    for (const job::HeldBytes& own : step.held) {
      if (own.result && counted.insert(own.shared).second) bytes += own.bytes;
    }
    // What was there a moment ago must be there again at once.
    const bool near = i + 1 >= at_ && i <= at_ + 1;
    const bool bare =
        std::none_of(step.held.begin(), step.held.end(), [](const job::HeldBytes& own) { return own.result; });
    if (near || bare || bytes <= limits_.results) return;
    step.job = job::withoutResults(std::move(step.job));
    step.held = job::heldBy(step.job);
  };
  for (std::size_t off = 0; off < steps_.size(); ++off) {
    if (off <= at_) visit(at_ - off);
    if (off > 0 && at_ + off < steps_.size()) visit(at_ + off);
  }
}

void History::forgetOldest() {
  std::unordered_set<const void*> counted{nullptr};
  std::size_t bytes = 0;
  // From the newest on: what several steps share stays as long as the newest of them.
  std::size_t kept = 0;
  for (auto step = steps_.rbegin(); step != steps_.rend() && kept < limits_.steps; ++step, ++kept) {
    for (const job::HeldBytes& own : step->held) {
      if (!own.result && (own.shared == nullptr || counted.insert(own.shared).second)) bytes += own.bytes;
    }
    if (bytes > limits_.bytes) break;
  }
  while (at_ > 0 && steps_.size() > kept) {
    steps_.pop_front();
    --at_;
  }
}

}  // namespace rim::app
