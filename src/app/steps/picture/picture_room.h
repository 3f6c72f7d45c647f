#pragma once

#include "app/steps/step_room.h"

namespace rim::app {

class PicturePanel;

/// What can be done in the Picture step.
struct PictureActions {
  explicit PictureActions(ActionBook& book);

  QAction* traceable;
};

/// The Picture step in the window.
class PictureRoom : public StepRoom {
  Q_OBJECT

 public:
  explicit PictureRoom(const Workplace& at);

  const PictureActions& actions() const { return actions_; }
  QWidget* panel() override;
  void fillMenu(QMenu& menu) override;
  CardLine cardLine() const override;
  void show() override;
  bool putToolAway() override;

 protected:
  void follow() override;

 private:
  PictureActions actions_;
  PicturePanel* panel_;
};

}  // namespace rim::app
