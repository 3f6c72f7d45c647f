#pragma once

#include <QJsonDocument>
#include <QJsonObject>
#include <QProcess>

namespace rim::test {

/// What the command line tool did.
struct Run {
  int code = -1;
  QString out;
  QString err;
};

inline Run cli(const QStringList& arguments) {
  QProcess process;
  process.start(CLI_PROGRAM, arguments);
  if (!process.waitForFinished(60'000)) return {};
  return {process.exitStatus() == QProcess::NormalExit ? process.exitCode() : -1,
          QString::fromUtf8(process.readAllStandardOutput()), QString::fromUtf8(process.readAllStandardError())};
}

/// What it reports with these arguments.
inline QJsonObject report(const QStringList& arguments) {
  const Run run = cli(QStringList(arguments) << "--report"
                                             << "-");
  return QJsonDocument::fromJson(run.out.toUtf8()).object();
}

}  // namespace rim::test
