// The menus: what is about files and looking is the window's own, each step fills its own.

#include <QMenuBar>

#include "app/main_window.h"

namespace rim::app {

void MainWindow::buildMenus() {
  buildFileMenu();
  QMenu* edit = menuBar()->addMenu(tr("&Edit"));
  edit->addActions({actions_.undo, actions_.redo});
  edit->addSeparator();
  for (const auto& room : rooms_) edit->addActions(room->forEditMenu());
  for (const auto& room : rooms_) room->fillMenu(*menuBar()->addMenu(room->title()));
  buildLookMenu();
  menuBar()->addMenu(tr("&Help"))->addActions({actions_.keys, actions_.about});
  for (QMenu* menu : findChildren<QMenu*>()) menu->setToolTipsVisible(true);
}

void MainWindow::buildFileMenu() {
  QMenu* file = menuBar()->addMenu(tr("&File"));
  file->addActions({actions_.open, actions_.camera});
  QMenu* recent = file->addMenu(tr("Open &recent"));
  connect(recent, &QMenu::aboutToShow, this, [this, recent] { fillRecent(recent); });
  QMenu* left = file->addMenu(tr("Bring &back"));
  connect(left, &QMenu::aboutToShow, this, [this, left] { fillLeft(left); });
  QMenu* demo = file->addMenu(tr("Open a &demo"));
  demo->addAction(tr("Badge of the kite loft"), this, [this] { openDemo("badge.jpg"); });
  demo->addAction(tr("Photo of the window card"), this, [this] { openDemo("window-card-photo.jpg"); });
  demo->addAction(tr("Weather vane"), this, [this] { openDemo("weather-vane.png"); });
  demo->addAction(tr("Ink drawing of a swallow"), this, [this] { openDemo("swallow.jpg"); });
  demo->addAction(tr("Broken spool plate (drawing)"), this, [this] { openDemo("spool-plate.dxf"); });
  file->addSeparator();
  file->addActions({actions_.save, actions_.saveAs});
  file->addSeparator();
  for (const auto& room : rooms_) file->addActions(room->forFileMenu());
  file->addSeparator();
  file->addActions({actions_.shelf, actions_.toShelf});
  file->addSeparator();
  file->addAction(actions_.quit);
}

void MainWindow::buildLookMenu() {
  QMenu* look = menuBar()->addMenu(tr("&Look"));
  look->addActions(actions_.compare->actions());
  look->addSeparator();
  look->addActions({actions_.nodes, actions_.weaker, actions_.stronger});
  look->addSeparator();
  look->addActions({actions_.zoomIn, actions_.zoomOut, actions_.fit, actions_.trueSize});
  look->addSeparator();
  look->addAction(actions_.unit);
  look->addMenu(tr("&Appearance"))->addActions(actions_.appearance->actions());
}

void MainWindow::fillRecent(QMenu* menu) {
  menu->clear();
  for (const QString& name : preferences_.recentFiles) {
    // A file name may hold an ampersand, which a menu would take for a mnemonic.
    menu->addAction(QString(name).replace('&', "&&"), this, [this, name] { openFile(name); });
  }
  if (menu->isEmpty()) menu->addAction(tr("Nothing was opened yet"))->setEnabled(false);
}

}  // namespace rim::app
