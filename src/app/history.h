#pragma once

#include <QString>
#include <deque>

#include "core/job/job_bytes.h"

namespace rim::app {

/// What undo may hold (core/job/job_bytes.h). Past `results` the steps farthest from the current one keep their recipes
/// alone, and what came of them is worked out again when they are gone back to; past the others the oldest steps are
/// forgotten.
struct HistoryLimits {
  std::size_t steps = 300;
  std::size_t results = 400'000'000;  ///< bytes of what can be worked out again
  std::size_t bytes = 1'500'000'000;  ///< of pictures as they were opened, drawings and decisions
};

/// Undo as a list of Jobs. Entry 0 is the beginning; every entry knows what made it of the one before.
class History {
 public:
  explicit History(HistoryLimits limits = {}) : limits_(limits) {}

  const job::Job& job() const { return steps_[at_].job; }

  /// Makes `job` the current one, as a step called `name`. What could be redone is forgotten.
  /// Steps with the same non-empty `mergeKey` become one until seal() is called: one drag of a
  /// slider is one step.
  void edit(job::Job job, const QString& name, const QString& mergeKey = {});

  /// Ends the merging of steps.
  void seal() { mergeKey_.clear(); }

  /// Gives the current job its outlines without making a step. Its memo is not kept.
  void complete(job::Job job);

  bool canUndo() const { return at_ > 0; }
  bool canRedo() const { return at_ + 1 < steps_.size(); }
  /// The job that undo() would go back to; null when it would go nowhere.
  const job::Job* before() const { return canUndo() ? &steps_[at_ - 1].job : nullptr; }
  QString undoName() const { return canUndo() ? steps_[at_].name : QString(); }
  QString redoName() const { return canRedo() ? steps_[at_ + 1].name : QString(); }
  void undo();
  void redo();
  /// Goes to the step with outlines that is nearest, looked for backwards first; to the beginning when there is none.
  void goToOutlines();

 private:
  struct Step {
    job::Job job;
    QString name;
    std::vector<job::HeldBytes> held;
  };
  void dropFarResults();
  void forgetOldest();

  HistoryLimits limits_;
  std::deque<Step> steps_{Step{}};
  std::size_t at_ = 0;
  QString mergeKey_;
};

}  // namespace rim::app
