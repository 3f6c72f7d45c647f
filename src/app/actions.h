#pragma once

#include <QActionGroup>

#include "app/action_book.h"

namespace rim::app {

/// What can be done in the window whatever step is worked in, each thing once: menus, buttons and keys all trigger
/// these. What a step adds is in its own folder; what these do is connected by the window.
struct Actions {
  Actions(ActionBook& book, QObject* owner);

  QAction* open;
  QAction* save;
  QAction* saveAs;
  QAction* paste;
  QAction* camera;
  QAction* shelf;
  QAction* toShelf;
  QAction* quit;
  QAction* undo;
  QAction* redo;
  QAction* references;
  QActionGroup* compare;  ///< overlay, seam, outlines; in the order of enum Compare
  QAction* nodes;
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

 private:
  void addFiles(ActionBook& book);
  void addLook(ActionBook& book, QObject* owner);
};

}  // namespace rim::app
