// Outlines drawn by their distance from the measured border, and the place where it is largest.

#include "app/bench/bench.h"
#include "app/main_window.h"
#include "app/steps/trace/trace_panel.h"

namespace rim::app {

/// Measures anew when the outlines have changed while distances are shown.
void MainWindow::followDeviation() {
  const bool wanted = actions_.deviation->isChecked() || lookAtWorst_;
  const auto& tracing = session_.job().tracing;
  if (deviationOf_ != tracing) deviation_.reset();
  const double tolerance = session_.job().trace.tolerancePx;
  const bool hasAny = deviation_ && !deviation_->outlines.empty();
  bench_->setDeviation(hasAny && actions_.deviation->isChecked() ? deviation_ : nullptr, tolerance);
  tracePanel_->showDeviation(actions_.deviation->isChecked() ? deviation_ : nullptr);
  if (!wanted || !tracing || deviationOf_ == tracing) return;
  deviationOf_ = tracing;
  session_.measureDeviation();
}

void MainWindow::showDeviation(std::shared_ptr<const Deviation> deviation) {
  if (session_.job().tracing != deviationOf_) return;
  deviation_ = std::move(deviation);
  if (lookAtWorst_) {
    lookAtWorst_ = false;
    lookAtWorst();
  }
  followDeviation();
}

void MainWindow::lookAtWorst() {
  if (!deviation_ || deviationOf_ != session_.job().tracing) {
    lookAtWorst_ = true;
    followDeviation();
    return;
  }
  constexpr double kNear = 16;  // screen px per picture px
  actions_.deviation->setChecked(true);
  if (!deviation_->outlines.empty()) bench_->lookAt(deviation_->worst, kNear);
}

}  // namespace rim::app
