namespace ombrek { void deskStub(); void deskStub() {} }
