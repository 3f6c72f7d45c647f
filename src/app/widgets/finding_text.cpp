#include "app/widgets/finding_text.h"

#include <QCoreApplication>
#include <QHash>

#include "app/widgets/counted.h"

namespace rim::app {
namespace {

QString text(const char* source) { return QCoreApplication::translate("Mend", source); }

}  // namespace

QString kindText(mend::FindingKind kind) {
  switch (kind) {
    case mend::FindingKind::Unjoined:
      return text("In pieces");
    case mend::FindingKind::OpenEnd:
      return text("Open ends");
    case mend::FindingKind::DoubleLine:
      return text("Drawn twice");
    case mend::FindingKind::StrokePair:
      return text("Two edges of a stroke");
    case mend::FindingKind::SelfCrossing:
      return text("Outlines that cross themselves");
    case mend::FindingKind::Loop:
      return text("Small loops");
    case mend::FindingKind::Crossing:
      return text("Outlines that cross each other");
    case mend::FindingKind::CoincidentNode:
      return text("Nodes in one place");
    case mend::FindingKind::ZeroLength:
      return text("Lines of no length");
    case mend::FindingKind::Spike:
      return text("Out and back");
    case mend::FindingKind::Speck:
      return text("Specks and scraps");
    case mend::FindingKind::Stray:
      return text("Far outside");
    case mend::FindingKind::Frame:
      return text("Frame round everything");
    case mend::FindingKind::LostDecision:
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

QString stepName(const mend::MendStep& step) {
  switch (step.what) {
    case mend::MendStep::What::Safe:
      return text("Mend all that is safe");
    case mend::MendStep::What::Proposals:
      return text("Take all proposals");
    case mend::MendStep::What::Leave:
      return text("Leave: %1").arg(kindText(step.kind).toLower());
    case mend::MendStep::What::Kind:
      return text("Mend all: %1").arg(kindText(step.kind).toLower());
    case mend::MendStep::What::One:
      return text("Mend: %1").arg(kindText(step.kind).toLower());
  }
  return {};
}

}  // namespace rim::app
