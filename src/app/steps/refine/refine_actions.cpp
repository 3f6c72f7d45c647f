#include "app/steps/refine/refine_actions.h"

#include <QCoreApplication>

#include "app/steps/rooms.h"

namespace rim::app {
namespace {

QString text(const char* source) { return QCoreApplication::translate("RefineActions", source); }

void noteKeys(ActionBook& book) {
  book.note(Step::Refine, text("arrow keys, with Shift ten times"),
            text("Move what is chosen by a step, 0.1 mm at first"));
  book.note(Step::Refine, text("Space"), text("Choose the next outline, node or open end"));
  book.note(Step::Refine, text("Ctrl, held"), text("While a box or a lasso is drawn: also what it touches"));
  book.note(Step::Refine, text("double click"), text("On a segment: put a node there"));
  book.note(Step::Refine, text("Alt, held"), text("While a handle is dragged: the other side of its node stays"));
}

}  // namespace

RefineActions::RefineActions(ActionBook& book, QAction* pasting, QObject* owner) : hand(book, owner), paste(pasting) {
  const auto add = [&book](const char* name, const char* tip, const char* keys) {
    return book.add(Step::Refine, text(name), text(tip), *keys == '\0' ? QList<QKeySequence>() : onKey(keys));
  };
  takeOffer = add("&Make this exact", "Take the offer that is looked at", "Y");
  takeLikeOffers = add("All &like this", "Take all offers of this kind", "Shift+Y");
  takeOffers = add("Make &all exact", "Take every offer", "Shift+S");
  nextOffer = add("&Next offer", "Look at the next place that is nearly exact", "E");
  previousOffer = add("&Previous offer", "Look at the place before", "Shift+E");
  nextFault = add("Next &fault", "Look at the next fault that came by refining", "B");
  deleteChosen = add("&Delete", "Take what is chosen out of the drawing", "Del");
  chooseAll = add("&Choose all", "Choose every outline, or every node", "Ctrl+A");
  rulers = book.addCheckable(Step::Refine, text("R&ulers and guides"),
                             text("A rule along two sides of the bench; guides are pulled out of it"), onKey("Ctrl+R"));
  grid = add("&Grid…", "Lines at a distance that places come to", "");
  clearGuides = add("&Remove all guides", "Every guide goes; undo brings them back", "");
  noteKeys(book);
}

}  // namespace rim::app
