#pragma once

#include "app/steps/step_room.h"
#include "app/steps/trace/deviation_layer.h"
#include "app/steps/trace/reference_layers.h"

namespace rim::app {

class TracePanel;

/// What can be done in the Trace step.
struct TraceActions {
  explicit TraceActions(ActionBook& book);

  QAction* automatic;
  QAction* lightIsInk;
  QAction* darker;
  QAction* lighter;
  QAction* switchParts;
  QAction* deviation;
  QAction* worst;
  QAction* reference;
  QAction* dropReference;
};

/// The Trace step in the window, with the distances from the border and the reference copies that it lays on the bench.
class TraceRoom : public StepRoom {
  Q_OBJECT

 public:
  explicit TraceRoom(const Workplace& at);

  const TraceActions& actions() const { return actions_; }
  QWidget* panel() override;
  void fillMenu(QMenu& menu) override;
  CardLine cardLine() const override;
  void show() override;
  bool putToolAway() override;

 protected:
  void follow() override;

 private:
  void connectDeviation();
  void followDeviation();
  void takeDeviation(std::shared_ptr<const trace::Deviation> deviation);
  void lookAtWorst();
  void showReferences();
  void openReferences();
  void showAllowed();

  TraceActions actions_;
  TracePanel* panel_;
  ReferenceLayer references_;
  DeviationLayer distances_;
  MarkLayer marks_;
  std::shared_ptr<const trace::Deviation> deviation_;  ///< of the outlines deviationOf_
  std::shared_ptr<const Drawing> deviationOf_;         ///< that are measured, or being measured
  bool lookAtWorst_ = false;                           ///< as soon as it is known
};

}  // namespace rim::app
