#pragma once

#include <QActionGroup>

#include "app/action_book.h"
#include "app/steps/refine/hand/hand_actions.h"

namespace rim::app {

/// Everything that can be done in the window, each thing once: menus, buttons and keys all
/// trigger these. What they do is connected by the window.
struct Actions {
  explicit Actions(QObject* owner);

  ActionBook book;
  HandActions hand;

  QAction* open;
  QAction* save;
  QAction* saveAs;
  QAction* paste;
  QAction* camera;
  QAction* exportFile;
  QAction* copyDrawing;
  QAction* sketch;
  QAction* batch;
  QAction* shelf;
  QAction* toShelf;
  QAction* quit;
  QAction* undo;
  QAction* redo;
  QAction* traceable;
  QAction* severalInks;
  QAction* sweep;
  QAction* mergeLikest;
  QAction* automatic;
  QAction* lightIsInk;
  QAction* darker;
  QAction* lighter;
  QAction* deviation;
  QAction* worst;
  QAction* switchParts;
  QAction* reference;
  QAction* dropReference;
  QAction* mendSafe;
  QAction* takeProposals;
  QAction* nextFinding;
  QAction* previousFinding;
  QAction* repairThis;
  QAction* repairAll;
  QAction* leaveThis;
  QAction* takeOffer;
  QAction* takeLikeOffers;
  QAction* takeOffers;
  QAction* nextOffer;
  QAction* previousOffer;
  QAction* nextFault;
  QAction* deleteChosen;
  QAction* chooseAll;
  QActionGroup* compare;  ///< overlay, seam, outlines; in the order of enum Compare
  QAction* nodes;
  QAction* rulers;
  QAction* grid;
  QAction* clearGuides;
  QAction* references;
  QAction* weaker;
  QAction* stronger;
  QAction* fit;
  QAction* trueSize;
  QAction* zoomIn;
  QAction* zoomOut;
  QAction* unit;
  QActionGroup* appearance;  ///< in the order of enum Appearance
  QAction* keys;
  QAction* about;
};

}  // namespace rim::app
