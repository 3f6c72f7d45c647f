#pragma once

#include "app/bench/finding_layer.h"
#include "app/steps/mend/speck_layer.h"
#include "app/steps/step_room.h"

namespace rim::app {

class MendPanel;

/// What can be done in the Mend step.
struct MendActions {
  explicit MendActions(ActionBook& book);

  QAction* mendSafe;
  QAction* takeProposals;
  QAction* nextFinding;
  QAction* previousFinding;
  QAction* repairThis;
  QAction* repairAll;
  QAction* leaveThis;
};

/// The Mend step in the window: findings are tagged on the bench while it is worked in.
class MendRoom : public StepRoom {
  Q_OBJECT

 public:
  explicit MendRoom(const Workplace& at);

  const MendActions& actions() const { return actions_; }
  QWidget* panel() override;
  void fillMenu(QMenu& menu) override;
  CardLine cardLine() const override;
  void show() override;

 protected:
  void follow() override { showFindings(); }

 private:
  std::vector<Speck> specks() const;
  void showFindings();
  void lookAtFinding();
  void showPreview(RepairPreview preview);

  MendActions actions_;
  MendPanel* panel_;
  SpeckLayer specks_;
  FindingLayer findings_;
  std::optional<Point> lookedAt_;  ///< the finding that was brought into sight last, mm
};

}  // namespace rim::app
