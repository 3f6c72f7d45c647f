#pragma once

#include "app/bench/finding_layer.h"
#include "app/bench/rulers.h"
#include "app/steps/refine/refine_actions.h"
#include "app/steps/refine/sheet_layers.h"
#include "app/steps/step_room.h"

namespace rim::app {

class Handwork;
class RefinePanel;

/// The Refine step in the window: the tools of the hand, what came wrong by refining, rules, guides, grid and stock.
class RefineRoom : public StepRoom {
  Q_OBJECT

 public:
  explicit RefineRoom(const Workplace& at);

  const RefineActions& actions() const { return actions_; }
  Handwork& handwork() const;
  Rulers& rulers() { return rulers_; }

  QWidget* panel() override;
  void fillMenu(QMenu& menu) override;
  QList<QAction*> forFileMenu() const override;
  QList<QAction*> forEditMenu() const override;
  CardLine cardLine() const override;
  void show() override;
  std::shared_ptr<const Drawing> outlines(const job::Job& job) const override;
  bool putToolAway() override;
  bool paste(const QMimeData* content) override;

 protected:
  void follow() override;

 private:
  void connectHandwork();
  void connectPanel();
  void connectAids();
  void fillSnaps(QMenu& menu);
  void showFaults();
  void showStock();
  /// Guides, grid and rules.
  void showAids();
  void askForGrid();
  void askForNudge();
  void typeGuide(std::size_t guide);
  void setGuides(const std::vector<Guide>& guides);

  RefineActions actions_;
  RefinePanel* panel_;
  FindingLayer faults_;
  GridLayer grid_;
  StockLayer stock_;
  Rulers rulers_;
};

}  // namespace rim::app
