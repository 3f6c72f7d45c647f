// Mended drawings as ezdxf and Shapely (GEOS) see them.

#include <QJsonArray>
#include <QJsonDocument>
#include <QJsonObject>
#include <QProcess>
#include <QTemporaryDir>
#include <QTest>

#include "core/io/export.h"
#include "core/mend/repair/mend.h"
#include "support/spoil.h"
#include "support/test_list.h"

using namespace rim;
using namespace rim::test;

class TestMendOutside : public QObject {
  Q_OBJECT

 private slots:
  void theMenderMakesOfASoupWhatPolygonizeDoes() {
    for (unsigned seed = 1; seed <= 3; ++seed) {
      std::mt19937 random(seed);
      const Drawing loose = inPieces(takenApart(plate(random), random), 4, random);
      const QJsonObject seen = asOthersSee(mend::mended(loose, {}).drawing, loose);
      QCOMPARE(seen["auditErrors"].toInt(-1), 0);
      QCOMPARE(seen["outlines"].toInt(), 8);
      QCOMPARE(seen["valid"].toInt(), 8);
      QCOMPARE(seen["polygons"].toInt(), 8);
      for (int i = 0; i < 8; ++i) {
        const double ours = seen["areas"].toArray()[i].toDouble();
        const double theirs = seen["polygonAreas"].toArray()[i].toDouble();
        QVERIFY2(std::abs(ours - theirs) < 1e-3 * theirs, qPrintable(QString("%1 and %2").arg(ours).arg(theirs)));
      }
    }
  }

  void whatWasBrokenIsValidAfterwards() {
    std::mt19937 random(4);
    const Drawing broken =
        withDirt(withDoubles(withGaps(takenApart(plate(random), random), 0.45, random), random), random);
    const QJsonObject seen = asOthersSee(mend::mended(broken, {}).drawing, {});
    QCOMPARE(seen["auditErrors"].toInt(-1), 0);
    QCOMPARE(seen["outlines"].toInt(), 8);
    QCOMPARE(seen["valid"].toInt(), 8);
  }

 private:
  QJsonObject asOthersSee(const Drawing& drawing, const Drawing& soup) {
    const auto write = [this](const Drawing& d, const char* name) {
      const QString file = folder_.filePath(name);
      io::writeDrawing(io::inFormFor(d, io::FileKind::Dxf, {}, 0.001), file.toStdString(), {});
      return file;
    };
    QStringList arguments{SOURCE_FOLDER "/tests/outside/mend_outside.py", write(drawing, "mended.dxf")};
    if (!soup.outlines.empty()) arguments << write(soup, "soup.dxf");
    QProcess python;
    python.start("/usr/bin/python3", arguments);
    python.waitForFinished(120'000);
    if (python.exitCode() != 0) qWarning().noquote() << python.readAllStandardError();
    return QJsonDocument::fromJson(python.readAllStandardOutput()).object();
  }

  QTemporaryDir folder_;
};

RIM_TEST(TestMendOutside)
#include "tst_mend_outside.moc"
