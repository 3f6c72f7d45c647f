#pragma once

#include "app/steps/refine/hand/hand_actions.h"

namespace rim::app {

/// What can be done in the Refine step.
struct RefineActions {
  /// `pasting`: the window's own, which this step takes outlines from, too. Groups of actions belong to `owner`.
  RefineActions(ActionBook& book, QAction* pasting, QObject* owner);

  HandActions hand;
  QAction* takeOffer;
  QAction* takeLikeOffers;
  QAction* takeOffers;
  QAction* nextOffer;
  QAction* previousOffer;
  QAction* nextFault;
  QAction* deleteChosen;
  QAction* chooseAll;
  QAction* rulers;
  QAction* grid;
  QAction* clearGuides;
  QAction* paste;
};

}  // namespace rim::app
