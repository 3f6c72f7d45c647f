#pragma once

#include <QActionGroup>

#include "app/action_book.h"

namespace rim::app {

/// What can be done by hand in the Refine step: the tools, and what happens to the nodes that are chosen.
struct HandActions {
  HandActions(ActionBook& book, QObject* owner);

  QActionGroup* tools;  ///< in the order of enum Hand
  QAction* line;
  QAction* arc;
  QAction* curve;
  QAction* smooth;
  QAction* corner;
  QAction* deleteSegments;
  QAction* part;
  QAction* close;
  QAction* turnRound;
  QAction* startHere;
  QAction* level;
  QAction* upright;
  QAction* slanting;
  QAction* spread;
  QAction* duplicate;
  QAction* snap;
  QAction* copy;
  QAction* cut;
  QAction* exportChosen;
  QAction* nudgeStep;
  QAction* group;
  QAction* ungroup;
  QAction* lasso;
  QList<QAction*> alike;  ///< in the order of refine::Likeness

  /// Those that are about chosen nodes and segments, in the order of menus.
  QList<QAction*> ofNodes() const;
};

/// The tools.
enum class Hand { Outlines, Nodes, Meet, CornerBrush, SmoothBrush, Draw, Measure, Trim, Knife, Offset, Mirror };

}  // namespace rim::app
