// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/session/plan_state.h"

#include <QObject>

namespace inchpeg::app
{

/// Ask & plan without widgets: turns what is typed into edits. What follows from the plan is PlanState's.
class PlanPresenter : public QObject
{
    Q_OBJECT
public:
    explicit PlanPresenter(ProjectSession &session, QObject *parent = nullptr);

    [[nodiscard]] PlanState &state() { return m_state; }
    [[nodiscard]] ProjectSession &session() { return m_session; }
    /// The test that the question is asked of.
    [[nodiscard]] Method firstTest() const { return methodOf(m_state.study()); }

    // The question and its factors
    bool setQuestion(const QString &text);
    bool setMethod(Method method);
    bool setProperty(Method test, const QString &name);
    /// "10 %", or "4 MPa" in the property's unit: kept as a share of the expected value of the reference.
    bool setDifference(const QString &text);
    [[nodiscard]] QString differenceText();
    /// A factor of the library brings its unit along where none is typed.
    bool setFactor(std::size_t index, const QString &name, const QString &unit);
    bool setChangedPer(std::size_t index, ChangedPer changedPer);
    /// Adds a factor; rails that are there get the level.
    bool addFactor(const QString &name, const QString &level);
    bool removeFactor(std::size_t index);
    /// Replaces the rails by those of a design over lists of levels such as "230, 245; 260".
    bool makeRails(DesignKind design, const std::vector<std::string> &generators, const QStringList &levels);
    [[nodiscard]] QStringList aliasSentences() const; ///< of a fraction
    [[nodiscard]] QString levelsText(std::size_t factor) const;
    /// Adds a rail for each level of a list; with several factors one rail, its levels in their order.
    bool addLevels(const QString &list, Orientation orientation, const QString &material);
    bool changeRail(const Condition &changed);
    bool removeRail(ConditionId rail);
    bool makeReference(ConditionId rail);
    /// An empty value takes the setting out.
    bool lock(const QString &name, const QString &value);
    bool addTest(Method method); ///< of the same rails
    bool removeTest(Method method);

    // How many
    bool setPiecesPerRail(Method test, int count);
    bool setSpares(int count);
    bool setComparison(Comparison comparison);
    bool setLooks(std::optional<Spending> looks);
    bool setConfidence(double percent);
    bool setPower(double percent);
    /// 0 goes back to own results or the usual value.
    bool setScatter(double percent);
    /// Of plates about their rail; 0: the assumed value.
    bool setPlateScatter(double percent);

    // Specimen and rig
    bool setShape(Method test, const SpecimenShape &shape);
    bool setRig(Method test, const QString &name);
    bool setExpected(Method test, const QString &text);
    bool setStress(Method test, const QString &text);
    bool setFixture(Method test, Fixture fixture);
    /// What is said for reading the records of a test: the hammer, the gauge length, the standard. A number
    /// without a unit is in the one that is shown; an empty text goes back to what is usual.
    bool setParameter(Method test, const Parameter &parameter, const QString &text);
    [[nodiscard]] QString parameterText(Method test, const Parameter &parameter) const;
    /// What holds where nothing is typed, or the unit in which a number is taken.
    [[nodiscard]] QString usualText(const Parameter &parameter) const;
    bool setFreeLength(Method test, const QString &text);
    bool setSpeed(Method test, double mm_per_min);

    // Print, dates, cautions
    bool setRounds(int rounds);
    bool drawAgain(); ///< another seed
    bool setSeed(std::uint64_t seed);
    bool setGap(double mm);
    bool setPrinter(const QString &name);
    bool setSlicer(ConditionId rail, std::optional<double> grams, std::optional<double> minutes);
    bool markPrinted(int plate);
    bool unmarkPrinted(int plate);
    bool setStart(const QString &day);
    bool setDrying(bool on);
    bool setConditioning(const std::optional<double> &hours);
    bool apply(const Control &control);
    bool confirm(std::string_view caution, bool confirmed);

    /// How the sections of pieces are measured.
    bool setSectionShape(SectionShape shape);

private:
    bool edit(const QString &what, const std::function<Status(Study &)> &change);

    ProjectSession &m_session;
    PlanState m_state;
};

/// "230, 245, 260", "230;245" or one level; "0,2" is one level with a decimal comma, "230,245" are two.
QStringList splitLevels(const QString &list);

} // namespace inchpeg::app
