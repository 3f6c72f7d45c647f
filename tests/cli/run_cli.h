#pragma once

#include <QFile>
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

/// All bytes of a file; none when it cannot be read.
inline QByteArray contents(const QString& name) {
  QFile file(name);
  return file.open(QIODevice::ReadOnly) ? file.readAll() : QByteArray();
}

inline QString demo(const char* name) { return QStringLiteral(SOURCE_FOLDER "/demo/") + name; }

/// Writes an SVG of 100 x 100 mm that holds these shapes.
inline void writeShapes(const QString& name, const QByteArray& shapes) {
  QFile file(name);
  if (!file.open(QIODevice::WriteOnly)) return;
  file.write("<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"100mm\" height=\"100mm\" viewBox=\"0 0 100 100\">" +
             shapes + "</svg>");
}

}  // namespace rim::test
