// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"
#include "service/project/edit_history.h"
#include "service/project/person.h"
#include "store/project_file.h"

#include <functional>
#include <memory>
#include <optional>
#include <string>
#include <vector>

namespace inchpeg
{

/// What an edit, or a step back or forward, changed: a study, the workshop, or a kept text.
struct Edited {
    StudyId study{}; ///< 0: none
    bool isWorkshop = false;
    std::string text{}; ///< its name; empty: none
    [[nodiscard]] bool isNothing() const { return study == StudyId{} && !isWorkshop && text.empty(); }
};

/// All that changes in a project goes through here, whoever asks for it: each change is one transaction, kept
/// with what it did to logged values, and one step that can be taken back. Undo belongs to the project: its
/// steps may be of any study, of the workshop, and of the texts that the project keeps.
class StudyEditor
{
public:
    /// file: must outlive the editor. workshop: as it stands in the file.
    StudyEditor(ProjectFile &file, Person person, Workshop workshop);

    [[nodiscard]] const Person &person() const { return m_person; }

    /// Why nothing may be changed: the project is open for reading, or was closed for a while.
    [[nodiscard]] Status mayChange() const;
    /// Refuses every change, with this reason, until it is taken away.
    void refuse(std::optional<Error> why) { m_refusal = std::move(why); }

    /// Brings a study to hand: edits of it need not read it again. What had to be put right is noted in its
    /// plan, kept where that may be, and told, a sentence each. Errors: those of ProjectFile::loadMended().
    struct Brought {
        std::vector<std::string> mended;
        Status kept = ok();
    };
    Result<Brought> hold(StudyId id);
    /// The study at hand; null where none is.
    [[nodiscard]] std::shared_ptr<const Study> held() const { return m_held; }

    /// Keeps a new study. Errors: those of mayChange() and ProjectFile::save().
    Status add(const Study &study);
    /// Changes a study, in one transaction. Nothing changes where change or saving fails; a change that
    /// leaves the study as it was is no step. Errors: those of change; NotFound; Storage.
    Result<Edited> edit(StudyId id, const std::string &what, const std::function<Status(Study &)> &change);

    /// Rigs, printers, spools, hours: shared by all studies of the project.
    [[nodiscard]] const Workshop &workshop() const { return m_workshop; }
    Result<Edited> editWorkshop(const std::string &what, const std::function<Status(Workshop &)> &change);

    /// A text that the project keeps under a name; empty where it keeps none.
    [[nodiscard]] std::string keptText(const std::string &name);
    Result<Edited> keepText(const std::string &what, const std::string &name, const std::string &text);

    [[nodiscard]] std::string undoText() const { return m_history.undoText(); }
    [[nodiscard]] std::string redoText() const { return m_history.redoText(); }
    /// Takes the last step back, or forward again. Precondition: there is one.
    Result<Edited> undo();
    Result<Edited> redo();
    /// Forgets the steps: what they would want is gone.
    void forgetSteps() { m_history.clear(); }

private:
    [[nodiscard]] Result<Study> current(StudyId id);
    Status replace(const Study &before, const Study &after);
    Result<Edited> replay(const EditHistory::Step &step, bool backward);

    ProjectFile &m_file;
    Person m_person;
    std::shared_ptr<const Study> m_held;
    Workshop m_workshop;
    EditHistory m_history;
    std::optional<Error> m_refusal;
};

} // namespace inchpeg
