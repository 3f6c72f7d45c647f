#include "app/steps/refine/new_faults.h"

#include <QLabel>
#include <QPushButton>
#include <QStyle>
#include <QVBoxLayout>
#include <map>

#include "app/steps/refine/refine_actions.h"
#include "app/widgets/counted.h"
#include "app/widgets/finding_text.h"
#include "app/widgets/panel_parts.h"

namespace rim::app {
namespace {

/// "Crossings: 2, open ends: 1".
QString kindsOf(const std::vector<mend::Finding>& faults) {
  std::map<mend::FindingKind, int> counts;
  for (const mend::Finding& f : faults) ++counts[f.kind];
  QStringList list;
  for (const auto& [kind, count] : counts) list << QStringLiteral("%1: %2").arg(kindText(kind)).arg(count);
  return list.join(QStringLiteral(", "));
}

}  // namespace

NewFaults::NewFaults(const RefineActions& actions, QWidget* parent) : QWidget(parent), actions_(actions) {
  auto* column = partLayout(this);
  text_ = addText(column);
  text_->setObjectName("newFaults");
  text_->setProperty("role", "trouble");
  column->addWidget(buttonFor(actions.nextFault));
  connect(actions.nextFault, &QAction::triggered, this, &NewFaults::next);
  setVisible(false);
  allow(actions.nextFault, false, tr("No fault came by refining."));
}

void NewFaults::show(const Faults& faults, Unit unit) {
  unit_ = unit;
  if (faults && faults != faults_) {
    faults_ = faults;
    current_.reset();
    emit changed();
  }
  const bool any = faults_ && !faults_->empty();
  setVisible(any);
  allow(actions_.nextFault, any, tr("No fault came by refining."));
  tell();
}

void NewFaults::next() {
  if (!faults_ || faults_->empty()) return;
  current_ = current_ ? (*current_ + 1) % faults_->size() : 0;
  tell();
  emit changed();
  emit lookedAt((*faults_)[*current_]);
}

void NewFaults::tell() {
  if (!faults_ || faults_->empty()) return;
  const QString count = counted(faults_->size(), tr("1 fault"), tr("%1 faults"));
  if (!current_) {
    text_->setText(tr("Refining brought %1. %2.").arg(count, kindsOf(*faults_)));
    return;
  }
  const QString sentence = QString::fromStdString(mend::sentenceOf((*faults_)[*current_], unit_));
  text_->setText(tr("%1 of %2 that came by refining: %3").arg(*current_ + 1).arg(count, sentence));
}

}  // namespace rim::app
