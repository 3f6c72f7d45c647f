#include "app/actions.h"

#include <QCoreApplication>

namespace rim::app {
namespace {

QString text(const char* source) { return QCoreApplication::translate("Actions", source); }

/// What is held, or moves something on the bench: no action stands for these.
void noteKeysOfTheBench(ActionBook& book) {
  book.note(kEverywhere, text("P, held"), text("The picture alone"));
  book.note(kEverywhere, text("O, held"), text("The picture as it was opened"));
  book.note(kEverywhere, text("arrow keys"), text("Move the view"));
  book.note(kEverywhere, text("Shift+Left, Shift+Right"), text("Move the seam"));
  book.note(kEverywhere, text("Esc"), text("Put the tool away; stop what is being worked out"));
}

}  // namespace

Actions::Actions(ActionBook& book, QObject* owner) {
  addFiles(book);
  undo = book.add(kEverywhere, text("&Undo"), text("Take back the last change"), onKey("Ctrl+Z"));
  redo = book.add(kEverywhere, text("&Redo"), text("Do again what was taken back"),
                  {QKeySequence("Ctrl+Shift+Z"), QKeySequence("Ctrl+Y")});
  references = book.add(kEverywhere, text("&Compare reference copies…"),
                        text("Which copies show, their nodes side by side, and where the outlines differ from one"),
                        onKey("Ctrl+Shift+R"));
  addLook(book, owner);
  keys = book.add(kEverywhere, text("&Keys"), text("All keys on one page, those of this step first"), onKey("F1"));
  about = book.add(kEverywhere, text("&About Snug Rim"), text("Version and licence"));
  noteKeysOfTheBench(book);
}

void Actions::addFiles(ActionBook& book) {
  open = book.add(kEverywhere, text("&Open…"), text("Open a picture, a drawing or a saved job"), onKey("Ctrl+O"));
  save = book.add(kEverywhere, text("&Save job"), text("Keep picture, settings and outlines in a job file"),
                  onKey("Ctrl+S"));
  saveAs = book.add(kEverywhere, text("Save job &as…"), text("Keep the job in another file"), onKey("Ctrl+Shift+S"));
  paste = book.add(kEverywhere, text("&Paste picture"), text("Take the picture that was copied elsewhere"),
                   onKey("Ctrl+V"));
  camera =
      book.add(kEverywhere, text("From the practice &camera…"), text("Photograph a drawing with a simulated phone"));
  shelf = book.add(kEverywhere, text("She&lf…"), text("Finished artwork, to open or to put into a drawing"),
                   onKey("Ctrl+L"));
  toShelf = book.add(kEverywhere, text("P&ut on the shelf…"),
                     text("Keep the outlines with a name and tags, to be used again"), onKey("Ctrl+Shift+L"));
  quit = book.add(kEverywhere, text("&Quit"), text("Close Snug Rim"), onKey("Ctrl+Q"));
}

void Actions::addLook(ActionBook& book, QObject* owner) {
  compare = new QActionGroup(owner);
  compare->addAction(
      book.addCheckable(kEverywhere, text("Over&lay"), text("Outlines laid over the picture"), onKey("1")));
  compare->addAction(book.addCheckable(kEverywhere, text("&Seam"),
                                       text("Picture left, outlines right of a seam that can be dragged"), onKey("2")));
  compare->addAction(book.addCheckable(kEverywhere, text("Out&lines"),
                                       text("Outlines alone, filled where they are closed"), onKey("3")));
  nodes = book.addCheckable(kEverywhere, text("&Nodes"), text("Show every node as what it is: corner, smooth, start"),
                            onKey("N"));
  weaker =
      book.add(kEverywhere, text("Picture &weaker"), text("Let the picture show less under the outlines"), onKey(","));
  stronger = book.add(kEverywhere, text("Picture s&tronger"), text("Let the picture show more under the outlines"),
                      onKey("."));
  fit = book.add(kEverywhere, text("&Fit"), text("Show the whole picture"), onKey("F"));
  trueSize = book.add(kEverywhere, text("&True size"), text("As large on the screen as it will be cut"), onKey("T"));
  zoomIn = book.add(kEverywhere, text("Zoom &in"), text("Nearer, towards the pointer"),
                    {QKeySequence("+"), QKeySequence("=")});
  zoomOut = book.add(kEverywhere, text("Zoom &out"), text("Farther away"), onKey("-"));
  zoomIn->setIconText("+");
  zoomOut->setIconText(QStringLiteral("\u2212"));
  unit = book.add(kEverywhere, text("Change &unit"), text("Change between millimetres and inches"), onKey("U"));
  appearance = new QActionGroup(owner);
  appearance->addAction(
      book.addCheckable(kEverywhere, text("As the &desktop"), text("Light or dark as the desktop is")));
  appearance->addAction(book.addCheckable(kEverywhere, text("&Light"), text("Dark letters on light")));
  appearance->addAction(book.addCheckable(kEverywhere, text("&Dark"), text("Light letters on dark")));
}

}  // namespace rim::app
