#include "app/actions.h"

#include <QCoreApplication>

namespace rim::app {
namespace {

QString text(const char* source) { return QCoreApplication::translate("Actions", source); }

QAction* checkable(QAction* action) {
  action->setCheckable(true);
  return action;
}

/// What is held, or moves something on the bench: no action stands for these.
void noteKeysOfTheBench(ActionBook& book) {
  book.note(Room::Everywhere, text("P, held"), text("The picture alone"));
  book.note(Room::Everywhere, text("O, held"), text("The picture as it was opened"));
  book.note(Room::Everywhere, text("arrow keys"), text("Move the view"));
  book.note(Room::Everywhere, text("Shift+Left, Shift+Right"), text("Move the seam"));
  book.note(Room::Everywhere, text("Esc"), text("Put the tool away; stop what is being worked out"));
  book.note(Room::Picture, text("Space, arrow keys"),
            text("With frame or corners: choose the next corner, move it by a pixel"));
  book.note(Room::Picture, text("Ctrl+arrow keys"), text("The same by ten pixels"));
  book.note(Room::Colours, text("Space, arrow keys"), text("With the sweep: begin and end it, lead the cross"));
  book.note(Room::Trace, text("Space, arrow keys"), text("With single parts: switch the one there, lead the cross"));
  book.note(Room::Trace, text("Shift, held"),
            text("While a single part is switched: all ink that hangs together with it"));
  book.note(Room::Refine, text("arrow keys, with Shift ten times"),
            text("Move what is chosen by a step, 0.1 mm at first"));
  book.note(Room::Refine, text("Space"), text("Choose the next outline, node or open end"));
  book.note(Room::Refine, text("Ctrl, held"), text("While a box or a lasso is drawn: also what it touches"));
  book.note(Room::Refine, text("double click"), text("On a segment: put a node there"));
  book.note(Room::Refine, text("Alt, held"), text("While a handle is dragged: the other side of its node stays"));
  book.note(Room::Colours, text("M, F2"), text("On the board of inks: merge with the next one chosen, rename"));
}

}  // namespace

Actions::Actions(QObject* owner) : book(owner), hand(book, owner) {
  const auto key = [](const char* name) { return QList<QKeySequence>{QKeySequence(QString::fromLatin1(name))}; };
  open = book.add(Room::Everywhere, text("&Open…"), text("Open a picture, a drawing or a saved job"), key("Ctrl+O"));
  save = book.add(Room::Everywhere, text("&Save job"), text("Keep picture, settings and outlines in a job file"),
                  key("Ctrl+S"));
  saveAs = book.add(Room::Everywhere, text("Save job &as…"), text("Keep the job in another file"), key("Ctrl+Shift+S"));
  paste = book.add(Room::Everywhere, text("&Paste picture"), text("Take the picture that was copied elsewhere"),
                   key("Ctrl+V"));
  camera = book.add(Room::Everywhere, text("From the practice &camera…"),
                    text("Photograph a drawing with a simulated phone"));
  exportFile = book.add(Room::Everywhere, text("&Export…"), text("Write the outlines to a file"), key("Ctrl+E"));
  copyDrawing = book.add(Room::Everywhere, text("&Copy as SVG"),
                         text("All outlines to the clipboard, as they would be written"), key("Ctrl+Shift+C"));
  sketch = book.add(Room::Everywhere, text("S&ketch check…"),
                    text("What a CAD program would make of the outlines: profiles, holes, the solid"), key("Ctrl+K"));
  batch = book.add(Room::Everywhere, text("Apply this job to other pictures…"),
                   text("The same settings for many pictures, with a receipt for each"));
  shelf = book.add(Room::Everywhere, text("She&lf…"), text("Finished artwork, to open or to put into a drawing"),
                   key("Ctrl+L"));
  toShelf = book.add(Room::Everywhere, text("P&ut on the shelf…"),
                     text("Keep the outlines with a name and tags, to be used again"), key("Ctrl+Shift+L"));
  quit = book.add(Room::Everywhere, text("&Quit"), text("Close Snug Rim"), key("Ctrl+Q"));
  undo = book.add(Room::Everywhere, text("&Undo"), text("Take back the last change"), key("Ctrl+Z"));
  redo = book.add(Room::Everywhere, text("&Redo"), text("Do again what was taken back"),
                  {QKeySequence("Ctrl+Shift+Z"), QKeySequence("Ctrl+Y")});
  traceable = book.add(Room::Picture, text("&Make it traceable"),
                       text("Straighten, even the light, calm noise: what the picture needs"), key("M"));
  severalInks = checkable(book.add(Room::Colours, text("&Several inks"),
                                   text("Part the picture by its colours instead of dark and light"), key("I")));
  sweep = checkable(book.add(Room::Colours, text("S&weep"),
                             text("Draw across whatever shall become one ink; Esc puts the sweep away"), key("W")));
  mergeLikest = book.add(Room::Colours, text("&Merge the two likest inks"),
                         text("Take the suggestion that differs least"), key("J"));
  automatic = checkable(
      book.add(Room::Trace, text("&Automatic threshold"), text("Part dark and light by Otsu's method"), key("A")));
  lightIsInk = checkable(book.add(Room::Trace, text("&Light ink on dark"),
                                  text("Take the light part of the picture as the ink"), key("L")));
  darker = book.add(Room::Trace, text("&Darker threshold"), text("Less is ink, when the ink is dark"), key("["));
  lighter = book.add(Room::Trace, text("Li&ghter threshold"), text("More is ink, when the ink is dark"), key("]"));

  switchParts = checkable(book.add(Room::Trace, text("S&witch single parts"),
                                   text("Click on a part: a line becomes an area, an area a line, whatever its width"),
                                   key("W")));
  deviation = checkable(book.add(Room::Trace, text("&Distance from the border"),
                                 text("Draw the outlines by how far they lie from the measured border"), key("D")));
  worst = book.add(Room::Trace, text("&Go to the largest distance"),
                   text("Look at the place where the outline is farthest off"), key("G"));
  reference = book.add(Room::Trace, text("&Keep as reference copy"),
                       text("Freeze these outlines, in grey, to compare others with"), key("R"));
  dropReference = book.add(Room::Trace, text("D&rop the reference copy"), text("Take the grey outlines off the bench"),
                           key("Shift+R"));
  references = book.add(Room::Everywhere, text("&Compare reference copies…"),
                        text("Which copies show, their nodes side by side, and where the outlines differ from one"),
                        key("Ctrl+Shift+R"));

  mendSafe = book.add(Room::Mend, text("&Mend all that is safe"),
                      text("Repair everything that can be repaired without a visible change"), key("S"));
  takeProposals = book.add(
      Room::Mend, text("&Take all proposals"),
      text("Do every repair that is proposed; the bench shows it before, while the pointer is here"), key("Shift+S"));
  nextFinding = book.add(Room::Mend, text("&Next finding"), text("Look at the next finding"), key("E"));
  previousFinding = book.add(Room::Mend, text("&Previous finding"), text("Look at the finding before"), key("Shift+E"));
  repairThis = book.add(Room::Mend, text("&Repair this"), text("Repair the finding that is looked at"), key("Y"));
  repairAll =
      book.add(Room::Mend, text("Repair &all like this"), text("Repair all findings of this kind"), key("Shift+Y"));
  leaveThis = book.add(Room::Mend, text("&Leave this one"), text("It stays as it is and is listed no more"), key("Q"));

  takeOffer = book.add(Room::Refine, text("&Make this exact"), text("Take the offer that is looked at"), key("Y"));
  takeLikeOffers = book.add(Room::Refine, text("All &like this"), text("Take all offers of this kind"), key("Shift+Y"));
  takeOffers = book.add(Room::Refine, text("Make &all exact"), text("Take every offer"), key("Shift+S"));
  nextOffer =
      book.add(Room::Refine, text("&Next offer"), text("Look at the next place that is nearly exact"), key("E"));
  previousOffer = book.add(Room::Refine, text("&Previous offer"), text("Look at the place before"), key("Shift+E"));
  nextFault =
      book.add(Room::Refine, text("Next &fault"), text("Look at the next fault that came by refining"), key("B"));
  deleteChosen = book.add(Room::Refine, text("&Delete"), text("Take what is chosen out of the drawing"), key("Del"));
  chooseAll = book.add(Room::Refine, text("&Choose all"), text("Choose every outline, or every node"), key("Ctrl+A"));

  compare = new QActionGroup(owner);
  compare->addAction(
      checkable(book.add(Room::Everywhere, text("Over&lay"), text("Outlines laid over the picture"), key("1"))));
  compare->addAction(checkable(book.add(Room::Everywhere, text("&Seam"),
                                        text("Picture left, outlines right of a seam that can be dragged"), key("2"))));
  compare->addAction(checkable(
      book.add(Room::Everywhere, text("Out&lines"), text("Outlines alone, filled where they are closed"), key("3"))));
  nodes = checkable(book.add(Room::Everywhere, text("&Nodes"),
                             text("Show every node as what it is: corner, smooth, start"), key("N")));
  rulers = checkable(book.add(Room::Refine, text("R&ulers and guides"),
                              text("A rule along two sides of the bench; guides are pulled out of it"), key("Ctrl+R")));
  grid = book.add(Room::Refine, text("&Grid…"), text("Lines at a distance that places come to"));
  clearGuides = book.add(Room::Refine, text("&Remove all guides"), text("Every guide goes; undo brings them back"));
  weaker = book.add(Room::Everywhere, text("Picture &weaker"), text("Let the picture show less under the outlines"),
                    key(","));
  stronger = book.add(Room::Everywhere, text("Picture s&tronger"), text("Let the picture show more under the outlines"),
                      key("."));
  fit = book.add(Room::Everywhere, text("&Fit"), text("Show the whole picture"), key("F"));
  trueSize = book.add(Room::Everywhere, text("&True size"), text("As large on the screen as it will be cut"), key("T"));
  zoomIn = book.add(Room::Everywhere, text("Zoom &in"), text("Nearer, towards the pointer"),
                    {QKeySequence("+"), QKeySequence("=")});
  zoomOut = book.add(Room::Everywhere, text("Zoom &out"), text("Farther away"), key("-"));
  zoomIn->setIconText("+");
  zoomOut->setIconText(QStringLiteral("\u2212"));
  unit = book.add(Room::Everywhere, text("Change &unit"), text("Change between millimetres and inches"), key("U"));

  appearance = new QActionGroup(owner);
  appearance->addAction(
      checkable(book.add(Room::Everywhere, text("As the &desktop"), text("Light or dark as the desktop is"))));
  appearance->addAction(checkable(book.add(Room::Everywhere, text("&Light"), text("Dark letters on light"))));
  appearance->addAction(checkable(book.add(Room::Everywhere, text("&Dark"), text("Light letters on dark"))));
  keys = book.add(Room::Everywhere, text("&Keys"), text("All keys on one page, those of this step first"), key("F1"));
  about = book.add(Room::Everywhere, text("&About Snug Rim"), text("Version and licence"));
  noteKeysOfTheBench(book);
}

}  // namespace rim::app
