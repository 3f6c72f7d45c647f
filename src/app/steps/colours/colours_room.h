#pragma once

#include "app/steps/step_room.h"

namespace rim::app {

class ColoursPanel;

/// What can be done in the Colours step.
struct ColoursActions {
  explicit ColoursActions(ActionBook& book);

  QAction* severalInks;
  QAction* sweep;
  QAction* mergeLikest;
};

/// The Colours step in the window: while it is worked in, the bench shows the inks in place of the picture.
class ColoursRoom : public StepRoom {
  Q_OBJECT

 public:
  explicit ColoursRoom(const Workplace& at);

  const ColoursActions& actions() const { return actions_; }
  /// Shows one ink as it is and pales the others; -1: none is lit.
  void lightInk(int ink);

  QWidget* panel() override;
  void fillMenu(QMenu& menu) override;
  CardLine cardLine() const override;
  void show() override;
  bool putToolAway() override;

 protected:
  void follow() override;

 private:
  void showInks();
  void showAllowed();

  ColoursActions actions_;
  ColoursPanel* panel_;
  std::shared_ptr<const colour::InkMap> shown_;  ///< that the bench shows; null: the picture
  int lit_ = -1;
};

}  // namespace rim::app
