#include "app/steps/refine/hand/hand_actions.h"

#include <QCoreApplication>

#include "app/steps/rooms.h"

namespace rim::app {
namespace {

QString text(const char* source) { return QCoreApplication::translate("HandActions", source); }

}  // namespace

HandActions::HandActions(ActionBook& book, QObject* owner) {
  const auto add = [&book](const char* name, const char* tip, const char* key) {
    QList<QKeySequence> keys;
    if (*key != '\0') keys.append(QKeySequence(QString::fromLatin1(key)));
    return book.add(Step::Refine, text(name), text(tip), keys);
  };
  tools = new QActionGroup(owner);
  for (QAction* tool : {add("&Outlines", "Choose and move whole outlines", "5"),
                        add("Nod&es", "Take hold of nodes, segments and their handles", "6"),
                        add("Mee&t", "Lead two open ends on until they meet", "7"),
                        add("&Corner brush", "Sweep over a bad corner: it is rebuilt from its sides", "8"),
                        add("Smooth &brush", "Sweep along a shaky stretch: it becomes smooth", "9"),
                        add("&Draw", "Draw a circle, a rectangle or another shape", "D"),
                        add("Measu&re", "Measure between two places, and what is under the pointer", "0"),
                        add("Tr&im", "Take out what runs on between two crossings", "I"),
                        add("Cut t&hrough", "Cut outlines in two along a line", "V"),
                        add("Of&fset", "Draw another outline beside one, outside or inside", "O"),
                        add("M&irror", "Mirror what is chosen across a line that is drawn", "M")}) {
    tool->setCheckable(true);
    tools->addAction(tool);
  }
  tools->actions().first()->setChecked(true);
  line = add("&Line", "Make the chosen segments lines", "L");
  arc = add("&Arc", "Make the chosen segments arcs", "A");
  curve = add("Cur&ve", "Make the chosen segments curves with handles", "C");
  smooth = add("S&mooth", "No turn at the chosen nodes", "S");
  corner = add("Cor&ner", "A corner at the chosen nodes", "K");
  deleteSegments = add("Take se&gments out", "The outline is open there", "Shift+Del");
  part = add("Part here", "Open the outline, or part it, at the chosen node", "X");
  close = add("Close", "Close an open outline", "J");
  turnRound = add("Turn round", "The outline runs the other way", "R");
  startHere = add("Start here", "The outline starts at the chosen node", "H");
  level = add("Line up, level", "The chosen nodes come to one height", "");
  upright = add("Line up, upright", "The chosen nodes come to one upright line", "");
  slanting = add("Line up, slanting", "The chosen nodes come to the line from the first to the last", "");
  spread = add("Spread evenly", "The chosen nodes come to even distances between the first and the last", "");
  duplicate = add("Dou&ble", "A copy of the chosen outlines, a little beside them", "Ctrl+D");
  snap = add("Sna&p", "Places come to nodes, middles, centres and lines nearby", "Q");
  snap->setCheckable(true);
  snap->setChecked(true);
  copy = add("Cop&y", "The chosen outlines to the clipboard, as SVG", "Ctrl+C");
  cut = add("C&ut", "The same, and take them out of the drawing", "Ctrl+X");
  exportChosen = add("E&xport these…", "Write only the chosen outlines to a file", "Ctrl+Shift+E");
  nudgeStep = add("Step of the arro&w keys…", "How far the arrow keys move what is chosen; with Shift ten times", "");
  lasso = add("&Lasso", "A drag draws a line round what is to be chosen, in place of a box", "W");
  lasso->setCheckable(true);
  alike = {add("As &large as these", "Outlines of nearly the same width and height, turned or not", ""),
           add("No larger than the&se", "Every outline that is no wider and no higher", ""),
           add("On the &same layer", "Every outline on a layer of those that are chosen", ""),
           add("Every o&pen one", "All outlines that are not closed", ""),
           add("All &inside these", "What lies inside the chosen ones, holes and all", ""),
           add("These with their &holes", "The chosen ones and what lies directly inside", ""),
           add("Only the out&ermost of these", "Those that lie in no other chosen one", ""),
           add("All the &others", "What is not chosen now", ""),
           add("All of the le&tter", "What lies in and round these, and dots beside; a double click does it, too", "")};
  group = add("&Group", "The chosen outlines are taken hold of as one from now on; Alt takes one of them", "Ctrl+G");
  ungroup = add("U&ngroup", "Each of the chosen outlines is by itself again", "Ctrl+Shift+G");
}

QList<QAction*> HandActions::ofNodes() const {
  return {line,  arc,       curve,     smooth, corner,  deleteSegments, part,
          close, turnRound, startHere, level,  upright, slanting,       spread};
}

}  // namespace rim::app
