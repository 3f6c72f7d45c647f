// How true outlines are, judged from outside: figures by formulas (polygons, arcs, ellipse, Reuleaux triangle,
// involute gear) and letters by their font file are drawn by cairo, spoiled, traced by the command line and read back
// by svgelements. The bounds are the goals for medians; `./run bench accuracy` measures all figures.

#include <QProcess>
#include <QTest>

#include "support/test_list.h"

class TestAccuracy : public QObject {
  Q_OBJECT

 private slots:
  void outlinesAreAsTrueAsPromised_data() {
    QTest::addColumn<double>("p95");
    QTest::addColumn<double>("corner");
    QTest::addColumn<double>("corner90");
    QTest::addColumn<double>("segments");
    QTest::newRow("clean") << 0.05 << 0.10 << 0.30 << 1.15;
    QTest::newRow("jpeg") << 0.10 << 0.25 << 0.60 << 1.4;
    QTest::newRow("light") << 0.15 << 0.30 << 0.80 << 1.5;
    // Level edges of black and white are where their pixels are, up to half a pixel off.
    QTest::newRow("hard") << 0.40 << 0.30 << 0.60 << 1.15;
    QTest::newRow("jagged") << 0.40 << 0.30 << 0.60 << 1.15;
  }

  void outlinesAreAsTrueAsPromised() {
    QFETCH(double, p95);
    QFETCH(double, corner);
    QFETCH(double, corner90);
    QFETCH(double, segments);
    QProcess measure;
    measure.start("/usr/bin/python3", {SOURCE_FOLDER "/benchmarks/accuracy/measure.py", CLI_PROGRAM,
                                       QTest::currentDataTag(), "--every", "3"});
    QVERIFY(measure.waitForFinished(250'000));
    QVERIFY2(measure.exitCode() == 0, measure.readAllStandardError().constData());
    const QStringList rows = QString::fromUtf8(measure.readAllStandardOutput()).trimmed().split('\n');
    const QStringList cells = rows.last().split('|');
    QVERIFY2(cells.size() == 8, qPrintable(rows.last()));
    const QStringList corners = cells[4].split('/');
    QVERIFY2(cells[2].toDouble() <= p95 && cells[2].toDouble() > 0, qPrintable(rows.last()));
    QVERIFY2(corners[0].toDouble() <= corner && corners[1].toDouble() <= corner90, qPrintable(rows.last()));
    QVERIFY2(cells[5].toDouble() <= segments, qPrintable(rows.last()));
    QVERIFY2(cells[6].trimmed().startsWith("0 of 16"), qPrintable(rows.last()));
  }

  /// Against the drawing that the badge was made from (benchmarks/accuracy/badge.py).
  void theBadgesInksAreWhereTheArtworkHasThem() {
    constexpr double kGoalPx = 0.25;
    QProcess measure;
    measure.start("/usr/bin/python3", {SOURCE_FOLDER "/benchmarks/accuracy/badge.py", CLI_PROGRAM});
    QVERIFY(measure.waitForFinished(250'000));
    QVERIFY2(measure.exitCode() == 0, measure.readAllStandardError().constData());
    const QStringList rows = QString::fromUtf8(measure.readAllStandardOutput()).trimmed().split('\n');
    QCOMPARE(rows.size(), 4);
    for (const QString& row : rows.mid(2)) {
      const QStringList cells = row.split('|');
      QCOMPARE(cells.size(), 9);
      // All but the paper, which is see through.
      QCOMPARE(cells[2].trimmed(), "5");
      for (const QString& cell : cells.mid(3, 5))
        QVERIFY2(cell.toDouble() > 0 && cell.toDouble() <= kGoalPx, qPrintable(row));
    }
  }

  /// The flat artwork of most inks (benchmarks/accuracy/inks.py), four figures.
  void everyInkCoversItsArea() {
    constexpr double kOverlap = 0.99;
    constexpr double kJunctionPx = 0.3;
    QProcess measure;
    measure.start("/usr/bin/python3",
                  {SOURCE_FOLDER "/benchmarks/accuracy/inks.py", CLI_PROGRAM, "clean", "--only", "12"});
    QVERIFY(measure.waitForFinished(250'000));
    QVERIFY2(measure.exitCode() == 0, measure.readAllStandardError().constData());
    const QString row = QString::fromUtf8(measure.readAllStandardOutput()).trimmed().split('\n').last();
    const QStringList cells = row.split('|');
    QVERIFY2(cells.size() == 7 && cells[2].trimmed() == cells[3].trimmed(), qPrintable(row));
    QVERIFY2(cells[4].split('/').last().toDouble() >= kOverlap, qPrintable(row));
    QVERIFY2(cells[5].toDouble() < kJunctionPx, qPrintable(row));
  }
};

RIM_TEST(TestAccuracy)
#include "tst_accuracy.moc"
