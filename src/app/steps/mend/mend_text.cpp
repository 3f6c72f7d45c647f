#include "app/steps/mend/mend_text.h"

#include <QCoreApplication>
#include <QHash>

#include "app/widgets/counted.h"

namespace rim::app {
namespace {

QString text(const char* source) { return QCoreApplication::translate("Mend", source); }

}  // namespace

QString kindText(FindingKind kind) {
  switch (kind) {
    case FindingKind::Unjoined:
      return text("In pieces");
    case FindingKind::OpenEnd:
      return text("Open ends");
    case FindingKind::DoubleLine:
      return text("Drawn twice");
    case FindingKind::StrokePair:
      return text("Two edges of a stroke");
    case FindingKind::SelfCrossing:
      return text("Outlines that cross themselves");
    case FindingKind::Loop:
      return text("Small loops");
    case FindingKind::Crossing:
      return text("Outlines that cross each other");
    case FindingKind::CoincidentNode:
      return text("Nodes in one place");
    case FindingKind::ZeroLength:
      return text("Lines of no length");
    case FindingKind::Spike:
      return text("Out and back");
    case FindingKind::Speck:
      return text("Specks and scraps");
    case FindingKind::Stray:
      return text("Far outside");
    case FindingKind::Frame:
      return text("Frame round everything");
    case FindingKind::LostDecision:
      return text("Decisions that find nothing");
  }
  return {};
}

QString repairText(const std::string& repair) {
  static const QHash<QString, const char*> kTexts{{"join", "Join both ends"},
                                                  {"bridge", "Draw the stroke on over the break"},
                                                  {"nearest", "Join to the nearest end"},
                                                  {"drop", "Drop it"},
                                                  {"one", "Make one line of it"},
                                                  {"once", "Draw the common border once"},
                                                  {"twice", "Keep it twice, for fills"},
                                                  {"outer", "Keep the outer edge"},
                                                  {"inner", "Keep the inner edge"},
                                                  {"centre", "Keep the line between"},
                                                  {"untangle", "Put its nodes in order"},
                                                  {"split", "Split where it crosses; all stays"},
                                                  {"cut off", "Cut it off"},
                                                  {"merge", "Make one node of them"},
                                                  {"forget", "Forget the decision"}};
  return text(kTexts.value(QString::fromStdString(repair), ""));
}

QString totalsText(const Counts& counts, std::size_t penLines, std::size_t findings) {
  if (counts.outlines == 0) return text("No outlines.");
  const QString outlines = counted(counts.outlines, text("1 outline"), text("%1 outlines"));
  if (findings == 0 && counts.open == 0) {
    return counts.outlines == 1 ? text("1 outline, closed, nothing drawn twice.")
                                : text("%1, all closed, nothing drawn twice.").arg(outlines);
  }
  if (findings == 0 && penLines > 0)
    return text("%1, %2 of them open lines of a pen; nothing drawn twice.").arg(outlines).arg(penLines);
  if (findings == 0)
    return text("%1, %2 of them borders between others; nothing drawn twice.").arg(outlines).arg(counts.open);
  const QString open = counts.open == 0 ? text("all closed") : text("%1 open").arg(counts.open);
  return text("%1, %2; %3.").arg(outlines, open, counted(findings, text("1 finding"), text("%1 findings")));
}

QString stepName(const MendStep& step) {
  switch (step.what) {
    case MendStep::What::Safe:
      return text("Mend all that is safe");
    case MendStep::What::Proposals:
      return text("Take all proposals");
    case MendStep::What::Leave:
      return text("Leave: %1").arg(kindText(step.kind).toLower());
    case MendStep::What::Kind:
      return text("Mend all: %1").arg(kindText(step.kind).toLower());
    case MendStep::What::One:
      return text("Mend: %1").arg(kindText(step.kind).toLower());
  }
  return {};
}

}  // namespace rim::app
