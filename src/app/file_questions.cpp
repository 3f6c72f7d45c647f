#include "app/file_questions.h"

#include <QCoreApplication>
#include <QFileDialog>
#include <QFileInfo>
#include <QMessageBox>
#include <QPushButton>
#include <QStandardPaths>

#include "app/session.h"

namespace rim::app {
namespace {

QString questionText(const char* source) { return QCoreApplication::translate("FileQuestions", source); }

}  // namespace

QString baseNameOf(const job::Job& job) {
  return QFileInfo(QString::fromStdString(job.original.name)).completeBaseName();
}

QString whyNotWritten(const Session& session) {
  if (!session.hasWork()) return questionText("Open a picture or a drawing first.");
  if (!session.upToDate()) return questionText("Tracing is not done yet.");
  return job::outlinesOf(session.job())->outlines.empty() ? questionText("There are no outlines to write.") : QString();
}

QString exportFolder(const Preferences& preferences) {
  return preferences.exportFolder.isEmpty() ? QStandardPaths::writableLocation(QStandardPaths::DocumentsLocation)
                                            : preferences.exportFolder;
}

QString chosenFile(QFileDialog& dialog, const QStringList& endings) {
  dialog.setAcceptMode(QFileDialog::AcceptSave);
  dialog.setDefaultSuffix(endings.first());
  // Whether a file is to be replaced is asked below, once its whole name is known.
  dialog.setOption(QFileDialog::DontConfirmOverwrite);
  while (dialog.exec() == QDialog::Accepted) {
    QString file = dialog.selectedFiles().value(0);
    // "part 2.5" has no ending, whatever stands behind its dot.
    if (!endings.contains(QFileInfo(file).suffix().toLower())) file += "." + endings.first();
    if (!QFileInfo::exists(file) || mayReplace(file, dialog.parentWidget())) return file;
  }
  return {};
}

bool mayReplace(const QString& file, QWidget* over) {
  QMessageBox question(QMessageBox::Question, questionText("Replace the file"),
                       questionText("%1 is there already.").arg(QFileInfo(file).fileName()), QMessageBox::Cancel, over);
  question.setObjectName("replaceQuestion");
  question.setTextFormat(Qt::PlainText);
  QPushButton* replace = question.addButton(questionText("&Replace"), QMessageBox::AcceptRole);
  question.exec();
  return question.clickedButton() == replace;
}

}  // namespace rim::app
