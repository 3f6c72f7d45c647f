#include "app/actions.h"

#include <QCoreApplication>

namespace rim::app {
namespace {

constexpr const char* kTip = "tip";

QString text(const char* source) { return QCoreApplication::translate("Actions", source); }

QAction* make(QObject* owner, const QString& name, const QString& tip, const QList<QKeySequence>& keys = {}) {
  auto* action = new QAction(name, owner);
  action->setShortcuts(keys);
  QString whole = tip;
  if (!keys.isEmpty()) whole += " (" + keys.first().toString(QKeySequence::NativeText) + ")";
  action->setToolTip(whole);
  action->setStatusTip(tip);
  action->setProperty(kTip, whole);
  return action;
}

QAction* checkable(QAction* action) {
  action->setCheckable(true);
  return action;
}

}  // namespace

Actions::Actions(QObject* owner) {
  const auto key = [](const char* keys) { return QList<QKeySequence>{QKeySequence(QString::fromLatin1(keys))}; };
  open = make(owner, text("&Open…"), text("Open a picture, a drawing or a saved job"), key("Ctrl+O"));
  save = make(owner, text("&Save job"), text("Keep picture, settings and outlines in a job file"), key("Ctrl+S"));
  saveAs = make(owner, text("Save job &as…"), text("Keep the job in another file"), key("Ctrl+Shift+S"));
  paste = make(owner, text("&Paste picture"), text("Take the picture that was copied elsewhere"), key("Ctrl+V"));
  camera = make(owner, text("From the practice &camera…"), text("Photograph a drawing with a simulated phone"));
  exportFile = make(owner, text("&Export…"), text("Write the outlines to a file"), key("Ctrl+E"));
  quit = make(owner, text("&Quit"), text("Close Snug Rim"), key("Ctrl+Q"));
  undo = make(owner, text("&Undo"), text("Take back the last change"), key("Ctrl+Z"));
  redo = make(owner, text("&Redo"), text("Do again what was taken back"),
              {QKeySequence("Ctrl+Shift+Z"), QKeySequence("Ctrl+Y")});
  traceable = make(owner, text("&Make it traceable"),
                   text("Straighten, even the light, calm noise: what the picture needs"), key("M"));
  severalInks = checkable(
      make(owner, text("&Several inks"), text("Part the picture by its colours instead of dark and light"), key("I")));
  sweep = checkable(make(owner, text("S&weep"),
                         text("Draw across whatever shall become one ink; Esc puts the sweep away"), key("W")));
  mergeLikest =
      make(owner, text("&Merge the two likest inks"), text("Take the suggestion that differs least"), key("J"));
  automatic =
      checkable(make(owner, text("&Automatic threshold"), text("Part dark and light by Otsu's method"), key("A")));
  lightIsInk = checkable(
      make(owner, text("&Light ink on dark"), text("Take the light part of the picture as the ink"), key("L")));
  darker = make(owner, text("&Darker threshold"), text("Less is ink, when the ink is dark"), key("["));
  lighter = make(owner, text("Li&ghter threshold"), text("More is ink, when the ink is dark"), key("]"));

  deviation = checkable(make(owner, text("&Distance from the border"),
                             text("Draw the outlines by how far they lie from the measured border"), key("D")));
  worst = make(owner, text("&Go to the largest distance"), text("Look at the place where the outline is farthest off"),
               key("G"));
  reference = make(owner, text("&Keep as reference copy"),
                   text("Freeze these outlines, in grey, to compare others with"), key("R"));
  dropReference =
      make(owner, text("D&rop the reference copy"), text("Take the grey outlines off the bench"), key("Shift+R"));

  mendSafe = make(owner, text("&Mend all that is safe"),
                  text("Repair everything that can be repaired without a visible change"), key("S"));
  takeProposals = make(owner, text("&Take all proposals"),
                       text("Do every repair that is proposed; the bench shows it before, while the pointer is here"),
                       key("Shift+S"));
  nextFinding = make(owner, text("&Next finding"), text("Look at the next finding"), key("E"));
  previousFinding = make(owner, text("&Previous finding"), text("Look at the finding before"), key("Shift+E"));
  repairThis = make(owner, text("&Repair this"), text("Repair the finding that is looked at"), key("Y"));
  repairAll = make(owner, text("Repair &all like this"), text("Repair all findings of this kind"), key("Shift+Y"));
  leaveThis = make(owner, text("&Leave this one"), text("It stays as it is and is listed no more"), key("Q"));

  compare = new QActionGroup(owner);
  compare->addAction(checkable(make(owner, text("Over&lay"), text("Outlines laid over the picture"), key("1"))));
  compare->addAction(checkable(
      make(owner, text("&Seam"), text("Picture left, outlines right of a seam that can be dragged"), key("2"))));
  compare->addAction(
      checkable(make(owner, text("Out&lines"), text("Outlines alone, filled where they are closed"), key("3"))));
  nodes =
      checkable(make(owner, text("&Nodes"), text("Show every node as what it is: corner, smooth, start"), key("N")));
  weaker = make(owner, text("Picture &weaker"), text("Let the picture show less under the outlines"), key(","));
  stronger = make(owner, text("Picture s&tronger"), text("Let the picture show more under the outlines"), key("."));
  fit = make(owner, text("&Fit"), text("Show the whole picture"), key("F"));
  trueSize = make(owner, text("&True size"), text("As large on the screen as it will be cut"), key("T"));
  zoomIn = make(owner, text("Zoom &in"), text("Nearer, towards the pointer"), {QKeySequence("+"), QKeySequence("=")});
  zoomOut = make(owner, text("Zoom &out"), text("Farther away"), key("-"));
  zoomIn->setIconText("+");
  zoomOut->setIconText(QStringLiteral("\u2212"));
  unit = make(owner, text("Change &unit"), text("Change between millimetres and inches"), key("U"));

  appearance = new QActionGroup(owner);
  appearance->addAction(checkable(make(owner, text("As the &desktop"), text("Light or dark as the desktop is"))));
  appearance->addAction(checkable(make(owner, text("&Light"), text("Dark letters on light"))));
  appearance->addAction(checkable(make(owner, text("&Dark"), text("Light letters on dark"))));
  about = make(owner, text("&About Snug Rim"), text("Version and licence"));
}

void allow(QAction* action, bool allowed, const QString& whyNot) {
  const QString tip = action->property(kTip).toString();
  action->setEnabled(allowed);
  action->setToolTip(allowed ? tip : tip + "\n" + whyNot);
}

}  // namespace rim::app
