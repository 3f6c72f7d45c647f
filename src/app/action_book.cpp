#include "app/action_book.h"

#include <QCoreApplication>
#include <algorithm>

namespace rim::app {
namespace {

constexpr const char* kTip = "tip";

QString bookText(const char* source) { return QCoreApplication::translate("ActionBook", source); }

/// A letter, digit or sign, alone or with Shift: a key that is scarce.
bool isSingle(const QKeySequence& keys) {
  return keys.count() == 1 && (keys[0].keyboardModifiers() & ~Qt::ShiftModifier) == Qt::NoModifier;
}

bool meet(Where a, Where b) { return a == b || a == kEverywhere || b == kEverywhere; }

QString textOf(const QList<QKeySequence>& keys) {
  QStringList texts;
  for (const QKeySequence& one : keys) texts << one.toString(QKeySequence::NativeText);
  return texts.join(bookText(" or "));
}

QString rowOf(const QString& keys, const QString& name, const QString& does) {
  return QString("<tr><td width=\"130\"><b>%1</b></td><td width=\"170\">%2</td><td>%3</td></tr>")
      .arg(keys.toHtmlEscaped(), name.toHtmlEscaped(), does.toHtmlEscaped());
}

/// As a menu shows it.
QString nameOf(const QAction& action) {
  return action.text().section(':', 0, 0).remove('&').remove(QStringLiteral("\u2026"));
}

}  // namespace

QAction* ActionBook::add(Where where, const QString& name, const QString& tip, const QList<QKeySequence>& keys) {
  auto* action = new QAction(name, owner_);
  QString whole = tip;
  if (!keys.isEmpty()) whole += " (" + keys.first().toString(QKeySequence::NativeText) + ")";
  action->setToolTip(whole);
  action->setStatusTip(tip);
  action->setProperty(kTip, whole);
  entries_.append({where, action, keys, tip});
  wake(entries_.last());
  return action;
}

QAction* ActionBook::addCheckable(Where where, const QString& name, const QString& tip,
                                  const QList<QKeySequence>& keys) {
  QAction* action = add(where, name, tip, keys);
  action->setCheckable(true);
  return action;
}

void ActionBook::enter(Step step) {
  entered_ = step;
  for (const Entry& entry : entries_) wake(entry);
}

void ActionBook::wake(const Entry& entry) const {
  QList<QKeySequence> awake = entry.keys;
  if (entry.where != kEverywhere && entry.where != entered_) awake.removeIf(isSingle);
  if (entry.action->shortcuts() != awake) entry.action->setShortcuts(awake);
}

QStringList ActionBook::clashes() const {
  QStringList found;
  for (int i = 0; i < entries_.size(); ++i) {
    for (int j = i + 1; j < entries_.size(); ++j) {
      const Entry& a = entries_[i];
      const Entry& b = entries_[j];
      for (const QKeySequence& key : a.keys) {
        if (!b.keys.contains(key) || (isSingle(key) && !meet(a.where, b.where))) continue;
        found << QString("%1 means both \"%2\" and \"%3\"").arg(key.toString(), a.action->text(), b.action->text());
      }
    }
  }
  return found;
}

QString ActionBook::rowsOf(Where where) const {
  QString rows;
  for (const Entry& entry : entries_) {
    if (entry.where == where && !entry.keys.isEmpty())
      rows += rowOf(textOf(entry.keys), nameOf(*entry.action), entry.tip);
  }
  for (const Note& note : notes_) {
    if (note.where == where) rows += rowOf(note.keys, {}, note.does);
  }
  return rows;
}

QString ActionBook::page() const {
  QList<StepName> steps = steps_;
  std::stable_partition(steps.begin(), steps.end(), [this](const StepName& one) { return one.step == entered_; });
  QString page;
  const auto add = [&page](const QString& heading, const QString& rows) {
    if (!rows.isEmpty()) page += "<h3>" + heading + "</h3><table cellpadding=\"3\">" + rows + "</table>";
  };
  for (const StepName& one : steps) add(bookText("In %1").arg(one.name), rowsOf(one.step));
  add(bookText("In every step"), rowsOf(kEverywhere));
  return page;
}

void allow(QAction* action, bool allowed, const QString& whyNot) {
  const QString tip = action->property(kTip).toString();
  action->setEnabled(allowed);
  action->setToolTip(allowed ? tip : tip + "\n" + whyNot);
}

}  // namespace rim::app
