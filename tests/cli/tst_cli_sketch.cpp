// What can be extruded, on the command line.

#include <QJsonArray>
#include <QTemporaryDir>
#include <QTest>
#include <QtEndian>
#include <cmath>

#include "run_cli.h"
#include "support/test_list.h"

using namespace rim::test;

namespace {

float number(const QByteArray& bytes, qsizetype at) {
  const auto raw = qFromLittleEndian<quint32>(bytes.constData() + at);
  float value = 0;
  std::memcpy(&value, &raw, sizeof value);
  return value;
}

/// The volume that a binary STL encloses, read as its specification says; negative when it is none.
double volumeOfStl(const QString& file) {
  QFile stl(file);
  if (!stl.open(QIODevice::ReadOnly)) return -1;
  const QByteArray bytes = stl.readAll();
  if (bytes.size() < 84) return -1;
  const auto count = qFromLittleEndian<quint32>(bytes.constData() + 80);
  if (bytes.size() != 84 + 50 * static_cast<qsizetype>(count)) return -1;
  double sixfold = 0;
  for (quint32 t = 0; t < count; ++t) {
    double p[9];
    for (int k = 0; k < 9; ++k)
      p[k] = static_cast<double>(number(bytes, 84 + 50 * static_cast<qsizetype>(t) + 12 + 4 * k));
    sixfold +=
        p[0] * (p[4] * p[8] - p[5] * p[7]) + p[1] * (p[5] * p[6] - p[3] * p[8]) + p[2] * (p[3] * p[7] - p[4] * p[6]);
  }
  return sixfold / 6;
}

}  // namespace

class TestCliSketch : public QObject {
  Q_OBJECT

 private slots:
  void everyDemoBecomesASolid_data() {
    QTest::addColumn<QString>("picture");
    for (const char* name : {"badge.png", "weather-vane.png", "window-card.png"}) QTest::newRow(name) << demo(name);
  }
  void everyDemoBecomesASolid() {
    QFETCH(QString, picture);
    QCOMPARE(cli({"trace", picture, "-o", at("a.dxf"), "--width-mm", "80", "--quiet"}).code, 0);
    const QJsonObject got =
        report({"sketch", at("a.dxf"), "--thickness", "2", "-o", at("a.stl"), "--chord", "0.002", "--quiet"});
    QVERIFY(got["not_extrudable"].toArray().isEmpty());
    QVERIFY(!got["profiles"].toArray().isEmpty());
    double volume = 0;
    for (const QJsonValue& profile : got["profiles"].toArray()) {
      const QJsonObject p = profile.toObject();
      QVERIFY(std::abs(p["volume_mm3"].toDouble() - 2 * p["area_mm2"].toDouble()) < 1e-9);
      volume += p["volume_mm3"].toDouble();
    }
    const double read = volumeOfStl(at("a.stl"));
    QVERIFY2(std::abs(read / volume - 1) < 2e-3, qPrintable(QString("%1 of %2").arg(read).arg(volume)));
  }

  void whatIsOpenOrCrossesIsNamed() {
    writeShapes(at("s.svg"),
                "<path fill=\"none\" stroke=\"#000\" d=\"M0,0 H20 V20 H0 Z M30,0 L50,0 M60,0 L80,20 L80,0 L60,20 Z"
                " M5,5 H10 V10 H5 Z\"/>");
    const QJsonObject got = report({"sketch", at("s.svg"), "--quiet"});
    const QJsonArray profiles = got["profiles"].toArray();
    QCOMPARE(profiles.size(), 1);
    QCOMPARE(profiles[0].toObject()["outer"].toInt(), 0);
    QCOMPARE(profiles[0].toObject()["holes"].toArray(), QJsonArray{3});
    QCOMPARE(profiles[0].toObject()["area_mm2"].toDouble(), 375.0);
    QCOMPARE(profiles[0].toObject()["volume_mm3"].toDouble(), 3 * 375.0);
    const QJsonArray unfit = got["not_extrudable"].toArray();
    QCOMPARE(unfit.size(), 2);
    QVERIFY(unfit[0].toObject()["outline"].toInt() == 1 && unfit[0].toObject()["why"].toString() == "open");
    QVERIFY(unfit[1].toObject()["outline"].toInt() == 2 && unfit[1].toObject()["why"].toString() == "crosses");
    const Run told = cli({"sketch", at("s.svg")});
    QCOMPARE(told.code, 0);
    QVERIFY(told.out.contains("profile 0: 1 hole, 375 mm2") &&
            told.out.contains("outline 1 cannot be extruded: it is open"));
  }

  void senselessIsRefused_data() {
    QTest::addColumn<QStringList>("arguments");
    QTest::newRow("no drawing") << QStringList{"nothing.svg"};
    QTest::newRow("no thickness") << QStringList{"s.svg", "--thickness", "0"};
    QTest::newRow("not a solid") << QStringList{"s.svg", "-o", "s.obj"};
    QTest::newRow("nothing to extrude") << QStringList{"s.svg", "-o", "s.stl"};
    QTest::newRow("no number") << QStringList{"s.svg", "--thickness", "nan"};
  }
  void senselessIsRefused() {
    QFETCH(QStringList, arguments);
    writeShapes(at("s.svg"), "<path fill=\"none\" stroke=\"#000\" d=\"M0,0 H20\"/>");
    for (QString& argument : arguments) {
      if (argument.contains('.')) argument = at(qPrintable(argument));
    }
    const Run run = cli(QStringList{"sketch"} + arguments);
    QCOMPARE(run.code, 2);
    QCOMPARE(run.err.trimmed().count('\n'), 0);
    QVERIFY(!QFile::exists(at("s.stl")));
  }

 private:
  QString at(const char* name) const { return folder_.filePath(name); }
  QTemporaryDir folder_;
};

RIM_TEST(TestCliSketch)
#include "tst_cli_sketch.moc"
